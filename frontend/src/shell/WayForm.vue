<script setup lang="ts">
/** Ways to the same end: each with price and days; one is taken with a reason, or none yet. */
import { computed, ref } from 'vue'
import { priceOf, useOwnId } from '@/composables/desk'
import { useBook } from '@/stores/book'

const props = defineProps<{
  ways: readonly { way: string; what: string }[]
  hows: readonly string[]
  questions: readonly string[]
}>()
const book = useBook()
const { id, renew } = useOwnId('y')
const what = ref('')
const because = ref('')
const chosen = ref('')
const asked = ref<string[]>([])
const blank = (how: string) => ({ how, price: '', days: '', because: '' })
const options = ref([blank(props.hows[0]), blank(props.hows[1])])
const left = computed(() => props.hows.filter((h) => !options.value.some((o) => o.how === h)))
async function weigh() {
  const known = props.ways.find((w) => w.what === what.value.trim())
  const done = await book.handed({
    kind: 'way weighed',
    way: known?.way ?? id.value,
    what: what.value.trim(),
    options: options.value.map((o) => ({
      how: o.how as 'do it',
      price: priceOf(o.price),
      days: o.days.trim() ? Number(o.days) : null,
      because: o.because.trim(),
    })),
    chosen: chosen.value === '' ? null : Number(chosen.value),
    because: because.value.trim(),
    questions: asked.value,
  })
  if (!done) return
  what.value = because.value = chosen.value = ''
  options.value = [blank(props.hows[0]), blank(props.hows[1])]
  asked.value = []
  renew()
}
</script>

<template>
  <form class="way" @submit.prevent="weigh">
    <label class="field"
      ><span>a piece of work, or a tool</span
      ><input v-model="what" class="entry" name="way" maxlength="120" autocomplete="off"
    /></label>
    <fieldset v-for="(o, k) in options" :key="k">
      <legend class="sr">Way {{ k + 1 }}</legend>
      <label class="sr" :for="`how${k}`">how</label
      ><select :id="`how${k}`" v-model="o.how" class="entry" :name="`how-${k}`">
        <option v-for="h in hows" :key="h" :value="h">{{ h }}</option></select
      ><label class="sr" :for="`wp${k}`">price</label
      ><input
        :id="`wp${k}`"
        v-model="o.price"
        class="entry"
        :name="`wayprice-${k}`"
        inputmode="decimal"
        placeholder="price"
        autocomplete="off"
      /><label class="sr" :for="`wd${k}`">days</label
      ><input
        :id="`wd${k}`"
        v-model="o.days"
        class="entry"
        :name="`waydays-${k}`"
        inputmode="numeric"
        placeholder="days"
        autocomplete="off"
      /><label class="sr" :for="`wb${k}`">what speaks for or against it</label
      ><input
        :id="`wb${k}`"
        v-model="o.because"
        class="entry"
        :name="`waywhy-${k}`"
        maxlength="200"
        placeholder="for or against: special tool, easy to ruin, balanced with it"
        autocomplete="off"
      />
    </fieldset>
    <div class="chips">
      <button v-for="h in left" :key="h" type="button" class="btn small" @click="options.push(blank(h))">
        + {{ h }}
      </button>
    </div>
    <details>
      <summary>What the outside shop must answer first</summary>
      <label v-for="q in questions" :key="q" class="q"
        ><input v-model="asked" type="checkbox" :value="q" name="question" /><span>{{ q }}</span></label
      >
    </details>
    <div class="take">
      <label class="sr" for="waytaken">Which is taken</label
      ><select id="waytaken" v-model="chosen" class="entry" name="taken">
        <option value="">not decided yet</option>
        <option v-for="(o, k) in options" :key="k" :value="String(k)">{{ o.how }}</option></select
      ><label class="sr" for="waybecause">Why this way</label
      ><input
        id="waybecause"
        v-model="because"
        class="entry"
        name="because"
        maxlength="300"
        placeholder="why this way"
        autocomplete="off"
      /><button type="submit" class="btn small" :disabled="!what.trim()">Write it</button>
    </div>
  </form>
</template>

<style scoped>
.way {
  display: grid;
  gap: 8px;
}
fieldset {
  display: grid;
  grid-template-columns: 180px 90px 80px minmax(0, 1fr);
  gap: 8px;
  border: 0;
  padding: 0;
}
.take {
  display: grid;
  grid-template-columns: 200px minmax(0, 1fr) auto;
  gap: 8px;
}
.q {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}
.q input {
  width: 24px;
  height: 24px;
}
@media (max-width: 700px) {
  fieldset,
  .take {
    grid-template-columns: 1fr;
  }
}
</style>
