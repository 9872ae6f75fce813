<script setup lang="ts">
/**
 * The limit book: every figure with its state, its source and the tool that can decide it; sources that
 * disagree side by side.
 */
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { FigureRow } from '@/api/client'
import { useKeys } from '@/composables/keys'
import ToolFit from '@/drawings/ToolFit.vue'
import FigureDrawer from '@/shell/FigureDrawer.vue'
import FiguresFile from '@/shell/FiguresFile.vue'
import PickOne from '@/shell/PickOne.vue'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useBook } from '@/stores/book'
import { usePlan } from '@/stores/plan'

const props = defineProps<{ build: string }>()
const book = useBook()
const plan = usePlan()
const route = useRoute()
const only = ref('')
const chosen = ref<string | null>((route.query.figure as string | undefined) ?? null)
const problem = ref('')
const turned = ref<readonly string[]>([])
const FILTERS = [
  ['assumed', 'Assumed'],
  ['not given', 'Not given'],
  ['conflict', 'Conflict'],
  ['own', 'My own'],
  ['no tool', 'No tool'],
] as const
const figures = computed(() => (plan.build === props.build ? plan.figures : null))
const rows = computed(() => figures.value?.rows ?? [])
const filters = computed(() => [
  { value: '', label: `All ${rows.value.length}` },
  ...FILTERS.flatMap(([value, name]) => {
    const count = figures.value?.counts[value]
    return count ? [{ value, label: `${name} ${count}` }] : []
  }),
])
const fitsFilter = (r: FigureRow) =>
  only.value === 'no tool' ? r.fit !== null && !r.fit.fits : !only.value || r.state === only.value
const shown = computed(() => [
  ...rows.value.filter((r) => r.conflict && fitsFilter(r)),
  ...rows.value.filter((r) => !r.conflict && fitsFilter(r)),
])
const row = computed(() => rows.value.find((r) => r.id === chosen.value) ?? null)
const hunt = computed(() => (figures.value?.counts['not given'] ?? 0) + (figures.value?.counts.assumed ?? 0))

watch(
  () => [props.build, book.frame?.head],
  () => void plan.loadFigures(props.build),
  { immediate: true },
)
function pick(id: string) {
  chosen.value = chosen.value === id ? null : id
  turned.value = []
}
useKeys(() => ({ Escape: () => (chosen.value ? (chosen.value = null) : history.back()) }))
</script>

<template>
  <WorkFrame :build="build" desk="figures">
    <p v-if="plan.problem" class="block" role="alert">{{ plan.problem }}</p>
    <div v-if="figures" class="book" :class="{ drawn: row }">
      <div class="list">
        <header class="head">
          <h1 class="t28">
            {{ rows.length }} figures: {{ hunt }} to hunt<template v-if="figures?.counts.conflict"
              >, {{ figures.counts.conflict }} in conflict</template
            >
          </h1>
          <FiguresFile v-model:problem="problem" :build="build" />
        </header>
        <p v-if="problem && !row" class="block" role="alert">{{ problem }}</p>
        <div v-if="turned.length" class="block" role="alert">
          <p class="b">Judged again:</p>
          <ul>
            <li v-for="t in turned" :key="t">{{ t }}</li>
          </ul>
        </div>
        <PickOne v-model="only" :options="filters" label="Filter" />
        <p v-if="!rows.length" class="quiet">
          No figures yet. They come with the procedures, or from a sheet.
        </p>
        <table v-else>
          <thead>
            <tr>
              <th>Figure, when</th>
              <th>Value</th>
              <th class="from">From</th>
              <th class="tool">Your tool in the slot</th>
              <th class="at">Step</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="r in shown"
              :key="`${r.kind}${r.id}`"
              :class="{ chosen: r.id === chosen }"
              @click="pick(r.id)"
            >
              <td>
                <button type="button" class="name" :aria-expanded="r.id === chosen" @click.stop="pick(r.id)">
                  {{ r.name }}</button><span class="t16 mut">{{ r.condition }}</span>
              </td>
              <td>
                <b>{{ r.conflict ? `${r.sources.length} answers` : r.words }}</b><span
                  v-if="r.joint"
                  class="t16 mut"
                  ><br />{{ r.tolerance }}</span
                >
              </td>
              <td class="from">
                <span v-if="r.guessed" class="assumed">assumed</span
                ><span v-else>{{ r.conflict ? 'sources disagree' : r.given ? r.source : '' }}</span>
              </td>
              <td class="tool">
                <template v-if="r.fit"
                  ><ToolFit
                    v-if="r.fit.share !== null || r.fit.fits"
                    :share="r.fit.share"
                    :fits="r.fit.fits"
                    :words="r.fit.words"
                  /><span class="t16" :class="{ outside: !r.fit.fits }">{{ r.fit.words }}</span></template
                >
              </td>
              <td class="at t16">{{ r.steps.slice(0, 3).join(', ') }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <FigureDrawer v-if="row" :row="row" :build="build" @close="chosen = null" @turned="turned = $event" />
    </div>
  </WorkFrame>
</template>

<style scoped>
.book {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  min-height: 100%;
}
.book.drawn {
  grid-template-columns: minmax(0, 1fr) 392px;
  column-gap: 20px;
}
.list {
  min-width: 0;
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: start;
  flex-wrap: wrap;
}
tbody tr {
  cursor: pointer;
}
tr.chosen {
  outline: 3px solid var(--ink);
  outline-offset: -2px;
}
.drawn .at {
  display: none;
}
.tool :deep(svg),
.tool span {
  display: block;
}
.name {
  border: 0;
  background: none;
  padding: 0;
  font-weight: 680;
  text-align: left;
  min-height: 44px;
  width: 100%;
  cursor: pointer;
  display: block;
}
@media (max-width: 1180px) {
  .tool {
    display: none;
  }
}
@media (max-width: 959px) {
  .book.drawn {
    grid-template-columns: minmax(0, 1fr);
  }
  .drawn .list > :not(.head) {
    display: none;
  }
  .drawer {
    border-left: 0;
    padding-left: 0;
  }
  .at {
    display: none;
  }
}
</style>
