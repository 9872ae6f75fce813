<script setup lang="ts">
/**
 * What nobody reaches once a step is done, by name; open lines can be done, let go with a reason, or put in.
 */
import type { Schemas } from '@/api/client'

const props = defineProps<{
  title: string
  chances: readonly Schemas['Chance'][]
  build: string
  act?: boolean
  first?: string | null
}>()
const emit = defineEmits<{
  letGo: [thing: string]
  seen: [thing: string]
  putIn: [chance: Schemas['Chance']]
}>()
const said = (chance: Schemas['Chance']) =>
  chance.todo && !chance.unplanned && !props.act ? `${chance.number}, in the plan` : chance.said
</script>

<template>
  <section class="closing" :aria-label="title">
    <div class="metal" aria-hidden="true" />
    <div class="body">
      <h2 class="t20">{{ title }}</h2>
      <ul>
        <li
          v-for="c in chances"
          :key="c.thing"
          :class="{ missing: c.unplanned && c.thing === first, todo: c.todo && act }"
        >
          <span class="what"
            ><b>{{ c.thing }}</b
            ><small>{{ c.because }}</small></span
          >
          <span class="state"><i v-if="c.done" class="disc" aria-hidden="true" />{{ said(c) }}</span>
          <span v-if="c.todo" class="do">
            <RouterLink
              v-if="c.step && act"
              class="btn small"
              :to="{ name: 'step', params: { build, step: c.step } }"
              >Do it now</RouterLink
            >
            <button
              v-if="c.unplanned"
              type="button"
              class="btn small"
              :class="{ go: true }"
              @click="emit('putIn', c)"
            >
              Put it in
            </button>
            <button v-if="act && c.unplanned" type="button" class="btn small" @click="emit('seen', c.thing)">
              It is done
            </button>
            <button v-if="act" type="button" class="btn small" @click="emit('letGo', c.thing)">
              Not wanted
            </button>
          </span>
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.closing .missing {
  background: var(--yel);
  color: var(--onyel);
  outline: 2px solid var(--yeledge);
  outline-offset: -2px;
}
.closing .missing small {
  color: var(--onyel);
}
.missing .btn {
  background: var(--now);
  color: var(--ink);
}
.todo:not(.missing) {
  background: var(--zinc2);
}
</style>
