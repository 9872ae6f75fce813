<script setup lang="ts">
/** Danger to people: two lines, the reason on a press, and a box where something must be confirmed first. */
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import { useSession } from '@/stores/session'

defineProps<{ caution: Schemas['Caution']; confirmed: boolean; by?: string; folded: boolean }>()
const session = useSession()
const emit = defineEmits<{ confirm: [] }>()
const open = ref(false)
/** The open hand of a caution. */
const HAND =
  'M12 22v-8a2 2 0 0 1 4 0v5-9a2 2 0 0 1 4 0v8-9a2 2 0 0 1 4 0v10-6a2 2 0 0 1 4 0v10' +
  'c0 7-4 10-8 10s-6-2-9-7l-3-5c-1-2 2-4 4-2Z'
</script>

<template>
  <section class="caution" :class="{ folded: folded && !open }" aria-label="Caution">
    <svg viewBox="0 0 40 40" width="40" height="40" aria-hidden="true">
      <rect x="2" y="2" width="36" height="36" fill="none" stroke="currentColor" stroke-width="2.6" />
      <path :d="HAND" fill="currentColor" />
    </svg>
    <div>
      <button type="button" class="t20 text" :aria-expanded="open" @click="open = !open">
        {{ caution.text }}
      </button>
      <p v-if="open" class="t16">
        {{ caution.why }} The vehicle maker's manual, local codes and licensed practice go first.
      </p>
    </div>
    <button
      v-if="caution.confirm"
      type="button"
      class="confirm"
      :class="{ yes: confirmed }"
      :aria-pressed="confirmed"
      @click="confirmed || emit('confirm')"
    >
      <i aria-hidden="true">{{ confirmed ? '✓' : '' }}</i><span
        >{{ caution.confirm
        }}<small v-if="confirmed ? by : session.who">{{
          confirmed ? `seen by ${by}` : session.who
        }}</small></span
      >
    </button>
    <button
      v-if="caution.confirm && !confirmed && session.who"
      type="button"
      class="other"
      @click="session.asked = true"
    >
      not {{ session.who }}?
    </button>
  </section>
</template>

<style scoped>
.caution {
  background: var(--ink);
  color: var(--now);
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 8px 12px;
  margin: 8px 0;
}
.caution svg {
  flex: none;
}
.caution > div {
  flex: 1;
}
.text {
  background: none;
  border: 0;
  padding: 0;
  color: inherit;
  text-align: left;
  cursor: pointer;
  min-height: 44px;
  line-height: 1.2;
}
.folded > div {
  min-width: 0;
}
.folded .text {
  width: 100%;
  font-size: 18px;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  overflow: hidden;
}
.confirm {
  display: flex;
  gap: 10px;
  align-items: center;
  border: 2px solid currentcolor;
  background: none;
  padding: 8px 12px;
  min-height: 48px;
  text-align: left;
  cursor: pointer;
  max-width: 250px;
  line-height: 1.15;
}
.confirm i {
  width: 26px;
  height: 26px;
  border: 2px solid currentcolor;
  flex: none;
  font-style: normal;
  line-height: 22px;
  text-align: center;
  font-weight: 800;
}
.confirm small {
  display: block;
  font-size: 16px;
  font-weight: 700;
}
.other {
  background: none;
  border: 0;
  color: inherit;
  text-decoration: underline;
  min-height: 44px;
  font-size: 16px;
  cursor: pointer;
}
.caution :focus-visible {
  outline-color: var(--now);
}
</style>
