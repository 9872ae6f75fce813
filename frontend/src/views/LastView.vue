<script setup lang="ts">
/** Last time on this vehicle, or with this engine or gearbox: what earlier builds left, beside today. */
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { client, type Schemas } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { useServer } from '@/composables/server'
import { useView } from '@/composables/view'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useBook } from '@/stores/book'

const props = defineProps<{ build: string }>()
const router = useRouter()
type Sort = Schemas['UnitNamedAct']['sort']
const SORTS: readonly Sort[] = ['engine', 'gearbox', 'transfer box', 'axle']
const book = useBook()
const { problem: refused, served } = useServer()
const [sort, number] = [ref<Sort>('engine'), ref('')]
async function named() {
  await served(() => book.write({ kind: 'unit named', sort: sort.value, number: number.value }))
  if (!refused.value) number.value = ''
}
const { view, problem } = useView<Schemas['LastView']>(
  () => client.GET('/api/builds/{build}/last', { params: { path: { build: props.build } } }),
  () => props.build,
)
useKeys(() => ({ Escape: () => void router.push({ name: 'plan', params: { build: props.build } }) }))
</script>

<template>
  <WorkFrame :build="build" :step="null" desk="last time">
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <template v-if="view">
      <h1 class="t28">{{ view.title }}</h1>
      <form class="stamped" @submit.prevent="named">
        <p>
          <b>Number stamped on a unit</b>: what it went through in another vehicle stands below.
          <span v-for="u in view.units" :key="u.sort" class="b nowrap">
            {{ u.sort }} {{ u.number }} ({{ u.who }}, {{ u.day }})
          </span>
        </p>
        <div role="group" aria-label="Which unit">
          <button
            v-for="s in SORTS"
            :key="s"
            type="button"
            class="btn small"
            :aria-pressed="sort === s"
            @click="sort = s"
          >
            {{ s }}
          </button>
        </div>
        <label class="field"
          ><span>its number</span
          ><input v-model="number" class="entry" name="stamped" maxlength="40" autocomplete="off"
        /></label>
        <button type="submit" class="btn small">Read off</button>
        <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
      </form>
      <section v-for="b in view.builds" :key="b.build" :aria-label="b.name">
        <h2 class="t24">
          <RouterLink :to="{ name: 'record', params: { build: b.build } }">{{ b.name }}</RouterLink>
        </h2>
        <p v-if="b.by" class="t20">By {{ b.by }}: what it says of that vehicle is not of this one.</p>
        <p>
          <b>{{ b.title }}</b><br /><span class="mut">{{ b.about }}</span>
        </p>
        <details v-if="b.left.length" :open="b.left.length < 9">
          <summary>{{ b.left.length }} left, accepted, altered or looked at again</summary>
          <ul>
            <li v-for="line in b.left" :key="line" class="line">{{ line }}</li>
          </ul>
        </details>
        <table v-if="b.rows.length">
          <thead>
            <tr>
              <th>what</th>
              <th>then</th>
              <th>today</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(r, k) in b.rows" :key="k">
              <td>
                <b>{{ r.what }}</b><small class="mut">{{ r.at }}</small>
              </td>
              <td>
                {{ r.then }}<small>{{ r.words }}</small>
              </td>
              <td class="b">{{ r.today || '–' }}</td>
            </tr>
          </tbody>
        </table>
        <p v-else class="mut">No figure and no mark was kept.</p>
      </section>
    </template>
  </WorkFrame>
</template>

<style scoped>
.stamped {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: end;
  border-top: 2px solid var(--line);
  padding: 6px 0 12px;
}
.stamped p {
  flex-basis: 100%;
}
.stamped [role='group'] {
  display: flex;
  gap: 6px;
}
section {
  border-top: 2px solid var(--line);
  padding: 6px 0 14px;
}
summary {
  min-height: 44px;
  line-height: 44px;
  cursor: pointer;
}
.line {
  border-top: 1px solid var(--hair);
  padding: 4px 0;
}
td {
  vertical-align: top;
}
td small {
  display: block;
}
</style>
