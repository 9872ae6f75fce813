<script setup lang="ts">
/** What hangs, on which legs, by which elements; weakest first, and everything that stands against it. */
import { reactive, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { useServer } from '@/composables/server'
import SlingTrue from '@/drawings/SlingTrue.vue'
import { useBook } from '@/stores/book'

type Element = Schemas['ElementSaid']
const props = defineProps<{ lift: Schemas['LiftFacts'] | null; step: string }>()
const book = useBook()
const { problem, asks, served } = useServer()
const open = ref(false)
const blank = (): Element => ({
  name: '',
  limit: '',
  left: 1,
  why: '',
  where: 'leg',
  found: '',
  inspected_until: null,
})
const said = reactive({
  what: '',
  mass: '',
  mass_from: 'estimate' as 'weighed' | 'book' | 'estimate',
  legs: 2,
  leg: '',
  apart: '',
  angle: '',
  hook: '',
  reach: '',
})
const elements = ref<Element[]>([blank()])
const percent = (share: number) => `${Math.min(share, 1.25) * 80}%` // the metal begins at four fifths: 100 %

async function say(sure = false) {
  const kept = await served(async () => {
    const named = elements.value
      .filter((e) => e.name.trim())
      .map((e) => ({ ...e, inspected_until: e.inspected_until || null }))
    await book.write({ kind: 'lift said', step: props.step, ...said, jerk: 1.25, elements: named, sure })
    return true
  })
  if (kept) open.value = false
}
</script>

<template>
  <section class="lift" aria-label="The lift">
    <template v-if="lift">
      <h2 class="t24" :class="{ outside: lift.stops.length }">{{ lift.title }}</h2>
      <p class="t16">{{ lift.about }}</p>
      <SlingTrue
        :angle="lift.angle"
        :flattest="lift.flattest"
        :legs="lift.legs"
        :what="lift.what"
        :leg-load="lift.leg_load"
        :stopped="lift.stops.length > 0"
      />
      <ol>
        <li v-for="r in lift.rows" :key="r.number" :class="{ stop: r.stop }">
          <b>{{ r.number }}</b>
          <span
            ><b>{{ r.name }}</b> <small>{{ r.how }}</small></span
          >
          <span class="nowrap b">{{ r.load }}</span>
          <span v-if="r.stop" class="outside b">{{ r.stop }}</span><i
            v-else-if="r.share !== null"
            class="bar"
            aria-hidden="true"
            ><i :style="{ left: percent(r.share ?? 0) }"
          /></i>
        </li>
      </ol>
      <p v-for="w in lift.working" :key="w" class="t16 mut">{{ w }}</p>
    </template>
    <p v-else class="t20">Nobody has said what hangs, and by what: nothing is lifted before.</p>
    <button type="button" class="btn small" :aria-expanded="open" @click="open = !open">
      {{ lift ? 'It hangs otherwise' : 'Say how it hangs' }}
    </button>
    <form v-if="open" class="form" @submit.prevent="say()">
      <label class="field"
        ><span>what hangs</span><input v-model="said.what" class="entry" name="lift-what"
      /></label>
      <label class="field"
        ><span>its mass, or a range: 171 to 196 kg</span
        ><input v-model="said.mass" class="entry" name="lift-mass" autocomplete="off"
      /></label>
      <label class="field"
        ><span>known from</span
        ><select v-model="said.mass_from" class="entry" name="lift-from">
          <option value="weighed">weighed</option>
          <option value="book">the book</option>
          <option value="estimate">an estimate</option>
        </select></label
      >
      <label class="field"
        ><span>legs</span
        ><select v-model.number="said.legs" class="entry" name="lift-legs">
          <option v-for="n in 4" :key="n" :value="n">{{ n }}</option>
        </select></label
      >
      <label class="field"
        ><span>a leg, mm</span><input v-model="said.leg" class="entry" name="lift-leg"
      /></label>
      <label class="field"
        ><span>eyes apart, mm</span><input v-model="said.apart" class="entry" name="lift-apart"
      /></label>
      <label class="field"
        ><span>or the angle measured, loaded</span
        ><input v-model="said.angle" class="entry" name="lift-angle"
      /></label>
      <label class="field"
        ><span>hook must go to, mm</span><input v-model="said.hook" class="entry" name="lift-hook"
      /></label>
      <label class="field"
        ><span>and can go to, mm</span><input v-model="said.reach" class="entry" name="lift-reach"
      /></label>
      <fieldset v-for="(e, k) in elements" :key="k" class="element">
        <legend class="t16">element {{ k + 1 }}, between load and beam</legend>
        <label class="field"
          ><span>what</span><input v-model="e.name" class="entry" :name="`el-name-${k}`"
        /></label>
        <label class="field"
          ><span>marked limit (empty: no mark)</span
          ><input v-model="e.limit" class="entry" :name="`el-limit-${k}`" placeholder="500 kg"
        /></label>
        <label class="field"
          ><span>share left, as it is used</span
          ><input v-model.number="e.left" class="entry" :name="`el-left-${k}`" inputmode="decimal"
        /></label>
        <label class="field"
          ><span>why less</span
          ><input v-model="e.why" class="entry" :name="`el-why-${k}`" placeholder="slant pull"
        /></label>
        <label class="field"
          ><span>carries</span
          ><select v-model="e.where" class="entry" :name="`el-where-${k}`">
            <option value="leg">one leg</option>
            <option value="top">the whole</option>
          </select></label
        >
        <label class="field"
          ><span>inspected until, by its tag</span
          ><input v-model="e.inspected_until" class="entry" :name="`el-until-${k}`" type="date"
        /></label>
        <label class="field"
          ><span>found on it (empty: nothing)</span
          ><input v-model="e.found" class="entry" :name="`el-found-${k}`" placeholder="a cut"
        /></label>
      </fieldset>
      <div class="two">
        <button type="button" class="btn small" @click="elements.push(blank())">One element more</button
        ><button type="submit" class="btn">It hangs so</button>
      </div>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <button v-if="asks" type="button" class="btn small" @click="say(true)">It is so</button>
    </form>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 32px minmax(0, 1fr) auto 170px;
  gap: 10px;
  align-items: center;
  min-height: 40px;
  border-top: 1px solid var(--hair);
}
li > b {
  width: 28px;
  height: 28px;
  border: 2px solid var(--ink);
  border-radius: 50%;
  text-align: center;
  line-height: 24px;
  font-size: 16px;
}
li.stop {
  background: var(--outw);
}
.bar {
  position: relative;
  height: 22px;
  background: var(--slot);
  border-left: 2px solid var(--ink);
}
.bar::after {
  content: '';
  position: absolute;
  inset: 0 0 0 80%;
  border-left: 3px solid var(--ink);
  background: repeating-linear-gradient(135deg, var(--metal) 0 1.6px, transparent 1.6px 7px);
}
.bar i {
  position: absolute;
  top: 3px;
  width: 16px;
  height: 16px;
  margin-left: -8px;
  border-radius: 50%;
  background: var(--in);
}
.form,
.element {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 8px;
  align-items: end;
}
.element,
.two {
  grid-column: 1 / -1;
}
.two {
  display: flex;
  gap: 8px;
}
</style>
