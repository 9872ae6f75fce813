<script setup lang="ts">
/**
 * The clock of the bench, read from entries alone: minutes worked against own range and book; a pause is
 * asked about once, and Y then a digit answers it.
 */
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { Schemas } from '@/api/client'
import { useKeys } from '@/composables/keys'
import PaceBar from '@/drawings/PaceBar.vue'
import WorkingLines from '@/shell/WorkingLines.vue'
import { useBook } from '@/stores/book'

const props = defineProps<{ clock: Schemas['ClockLine'] }>()
const book = useBook()
const router = useRouter()
const open = ref(false)
const armed = ref(false)
const pause = computed(() => props.clock.pause)
watch(
  () => pause.value?.after,
  () => (armed.value = false),
)
const say = (cause: string) => {
  armed.value = false
  if (pause.value) void book.act({ kind: 'pause said', after: pause.value.after, cause: cause as 'work' })
}
/** Without Y a digit stays what it was: no digit answers a pause by itself. */
useKeys(() => ({
  y: () => {
    if (pause.value) armed.value = !armed.value
    else if (open.value) void router.push('/pace')
    else open.value = true
  },
  ...(armed.value ? Object.fromEntries(props.clock.causes.map((c, k) => [String(k + 1), () => say(c)])) : {}),
}))
</script>

<template>
  <section class="clock" aria-label="Clock">
    <div v-if="pause" class="pause" :class="{ armed }">
      <b>{{ clock.pause_words }}</b>
      <div class="chips">
        <button v-for="(c, k) in clock.causes" :key="c" type="button" class="btn small" @click="say(c)">
          {{ c }} <kbd v-if="armed">{{ k + 1 }}</kbd>
        </button>
      </div>
    </div>
    <button type="button" class="line" :aria-expanded="open" @click="open = !open">
      <span>{{ clock.line }}</span><span v-if="clock.over" class="too_close b">{{ clock.over }}</span
      ><kbd>Y</kbd>
    </button>
    <div v-if="open" class="more">
      <PaceBar
        v-if="clock.slow !== null && clock.quick !== null"
        :minutes="clock.minutes"
        :quick="clock.quick"
        :slow="clock.slow"
        :book="clock.book ?? 0"
      />
      <p>{{ clock.pace.words }}. <RouterLink to="/pace">Pace and lost time</RouterLink></p>
      <WorkingLines :lines="clock.pace.working" />
    </div>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  gap: 16px;
  align-items: center;
  width: 100%;
  min-height: 44px;
  border: 0;
  border-top: 1px solid var(--hair);
  background: none;
  text-align: left;
  cursor: pointer;
}
.line kbd {
  margin-left: auto;
}
.pause {
  border: 3px solid var(--ink);
  background: var(--zinc2);
  padding: 8px 12px;
  display: grid;
  gap: 8px;
  margin-bottom: 6px;
}
.pause.armed {
  outline: 4px solid var(--yel);
}
</style>
