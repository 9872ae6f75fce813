<script setup lang="ts">
/** Every fluid: in, primed, bled, level; litres, why they differ; the rung it shuts. A row opens its acts. */
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import { emptied, useServer } from '@/composables/server'
import FluidMark from '@/drawings/FluidMark.vue'
import StopBar from '@/drawings/StopBar.vue'
import { useBook } from '@/stores/book'

type Row = Schemas['FluidRow']
const props = defineProps<{ view: Schemas['LeaksView'] }>()
const book = useBook()
const { problem, served } = useServer()
const open = ref<string | null>(null)
const amount = ref('')
const grade = ref('')
const words = ref('')
/** How it stands and whether it is hot is never filled in as said. */
const attitude = ref<Schemas['LevelSaidAct']['attitude'] | ''>('')
const heat = ref<Schemas['LevelSaidAct']['heat'] | ''>('')
const LEVELS: readonly (readonly [Schemas['LevelSaidAct']['level'], string])[] = [
  ['below', 'Below its mark'],
  ['at', 'At its mark'],
  ['over', 'Runs over'],
]
const CAME = ['air', 'foam', 'clear', 'nothing'] as const
const HEATS = ['cold', 'hot'] as const
const STANDS = ['level', 'nose up', 'nose down', 'leaning', 'on its own base'] as const
const system = (r: Row) => props.view.systems.find((s) => s.kind === r.fluid)

async function level(r: Row, at: (typeof LEVELS)[number][0]) {
  if (!attitude.value || !heat.value) return
  const state = { attitude: attitude.value, heat: heat.value }
  const kept = await served(() => book.write({ kind: 'level said', fluid: r.fluid, level: at, ...state }))
  if (kept !== undefined) attitude.value = heat.value = ''
}
const bled = (r: Row, came: (typeof CAME)[number]) =>
  served(() => book.write({ kind: 'bleed cycle', fluid: r.fluid, came }))
async function moved(r: Row, way: 'in' | 'out') {
  const own = { amount: amount.value.trim(), grade: grade.value.trim(), words: words.value.trim() }
  const empty = emptied(amount, words)
  const kept = await served(() => book.write({ kind: 'fluid moved', fluid: r.fluid, way, ...own }))
  if (kept !== undefined) empty()
}
</script>

<template>
  <section aria-label="Fluids">
    <div class="row head" aria-hidden="true">
      <b class="t20">Fluids</b><span>in</span><span>primed</span><span>bled</span><span>level</span
      ><span>litres</span><span>holds shut</span>
    </div>
    <div v-for="r in view.rows" :key="r.fluid" class="fluid">
      <button
        type="button"
        class="row"
        :aria-expanded="open === r.fluid"
        @click="open = open === r.fluid ? null : r.fluid"
      >
        <span class="name"
          ><b>{{ r.name }}</b
          ><small
            >{{ r.empty ?? r.words ?? '' }}{{ r.words || r.empty ? '' : r.grade || r.dry_at }}</small
          ></span
        >
        <FluidMark :mark="r.filled" what="in" />
        <FluidMark :mark="r.primed" what="primed" />
        <FluidMark :mark="r.bled" what="bled" />
        <FluidMark :mark="r.level" what="level" />
        <span class="amounts">{{ r.amounts }}</span>
        <span class="shuts"
          ><StopBar :free="r.free" :rungs="view.rungs" :word="r.shuts" :cell="10" :high="20" />{{
            r.shuts
          }}</span
        >
      </button>
      <div v-if="open === r.fluid" class="acts">
        <p v-if="system(r)" class="t16">
          <b>Before:</b> {{ system(r)?.before }}. <b>A cycle:</b> {{ system(r)?.cycle }}. <b>Air shows as:</b>
          {{ system(r)?.air }}. <b>Done:</b> {{ system(r)?.done }}. <b>Ruins it:</b> {{ system(r)?.ruins }}.
          <b v-if="system(r)?.safe">{{ system(r)?.safe }}.</b>
        </p>
        <div class="two" role="group" aria-label="This cycle brought">
          <span>This cycle brought</span>
          <button v-for="c in CAME" :key="c" type="button" class="btn small" @click="bled(r, c)">
            {{ c }}
          </button>
          <b :class="{ outside: r.bleeding.stop }">{{ r.bleeding.words }}</b>
        </div>
        <div class="two" role="group" aria-label="Level">
          <label class="field"
            ><span>the unit stands</span
            ><select v-model="attitude" class="entry" :name="`stands-${r.fluid}`">
              <option value="" disabled>say how</option>
              <option v-for="s in STANDS" :key="s">{{ s }}</option>
            </select></label
          >
          <button
            v-for="h in HEATS"
            :key="h"
            type="button"
            class="btn small"
            :aria-pressed="heat === h"
            @click="heat = h"
          >
            {{ h }}
          </button>
          <button
            v-for="[at, w] in LEVELS"
            :key="at"
            type="button"
            class="btn small"
            :disabled="!attitude || !heat"
            @click="level(r, at)"
          >
            {{ w }}
          </button>
        </div>
        <div class="two">
          <label class="field"
            ><span>litres</span
            ><input
              v-model="amount"
              class="entry short"
              :name="`amount-${r.fluid}`"
              inputmode="decimal" /></label
          ><label class="field"
            ><span>which</span
            ><input v-model="grade" class="entry" :name="`grade-${r.fluid}`" maxlength="80" /></label
          ><label class="field"
            ><span>why they differ</span
            ><input v-model="words" class="entry" :name="`why-${r.fluid}`" maxlength="300"
          /></label>
          <button type="button" class="btn small" @click="moved(r, 'in')">In</button
          ><button type="button" class="btn small" @click="moved(r, 'out')">Out</button>
        </div>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) repeat(4, 58px) 130px 150px;
  align-items: center;
  gap: 6px;
  width: 100%;
  text-align: left;
}
.row span {
  font-size: 16px;
}
.head {
  border-bottom: 2px solid var(--ink);
  padding-bottom: 2px;
}
button.row {
  min-height: 52px;
  border: 0;
  border-bottom: 1px solid var(--hair);
  background: none;
  font: inherit;
  color: inherit;
  cursor: pointer;
  padding: 2px 0;
}
.name b {
  font-size: 18px;
  font-weight: 680;
}
.name small {
  display: block;
  font-size: 16px;
}
.shuts {
  display: flex;
  align-items: center;
  gap: 6px;
}
.acts {
  display: grid;
  gap: 8px;
  padding: 8px 0 12px;
  border-bottom: 2px solid var(--ink);
}
.two {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
}
.short {
  width: 100px;
}
@media (max-width: 959px) {
  .row {
    grid-template-columns: minmax(0, 1fr) repeat(4, 56px) 76px 112px;
  }
}
@media (max-width: 599px) {
  .row {
    grid-template-columns: minmax(0, 1fr) repeat(4, 40px);
  }
  .head span {
    display: none;
  }
  .amounts {
    grid-column: 1;
  }
  .shuts {
    grid-column: 2 / -1;
  }
}
</style>
