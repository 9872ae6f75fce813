<script setup lang="ts">
/** One line of the register: how it stands, what it is known by, and its proof once it is back. */
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'

type How = 'pulled' | 'seen' | 'measured'
const props = defineProps<{ id?: string; row: Schemas['TieRow']; build: string }>()
const book = useBook()
const { problem, served } = useServer()
const open = ref(false)
const tucked = ref(props.row.tucked)
const label = ref(props.row.label)
const alike = ref(props.row.alike)
const route = ref(props.row.route)
const words = ref('')
const HOW: [How, string][] = [
  ['pulled', 'Pulled, it holds'],
  ['seen', 'Seen, its own place'],
  ['measured', 'Measured'],
]
const LOOK: Record<Schemas['TieRow']['state'], string> = {
  off: 'b',
  back: 'too_close b',
  wrong: 'outside b',
  proven: 'inside',
}

async function tell() {
  const told = {
    tucked: tucked.value.trim(),
    label: label.value.trim(),
    alike: alike.value.trim(),
    route: route.value.trim(),
  }
  await served(() => book.write({ kind: 'tie told', item: props.row.item, ...told }))
  if (!problem.value) open.value = false
}
const only = (hangs: boolean) => served(() => book.write({ kind: 'tie told', item: props.row.item, hangs }))
async function prove(how: How, right = true) {
  const proof = { how, right, words: words.value.trim() }
  await served(() => book.write({ kind: 'tie proven', item: props.row.item, ...proof }))
  if (!problem.value) words.value = ''
}
</script>

<template>
  <article>
    <button :id="id" type="button" class="unfold" :aria-expanded="open" @click="open = !open">
      <span
        ><b>{{ row.what }}</b
        ><small v-if="row.number" class="mut"> parted at {{ row.number }}</small></span
      >
      <span :class="LOOK[row.state]">{{ row.words }}</span>
    </button>
    <p v-if="row.tucked || row.label || row.alike || row.route || row.hangs" class="t16">
      <b v-if="row.hangs">Reached only while it hangs. </b
      ><template v-if="row.route">Led {{ row.route }}. </template
      ><template v-if="row.tucked">Where: {{ row.tucked }}. </template
      ><template v-if="row.label">Label {{ row.label }}. </template
      ><b v-if="row.alike">Looks like {{ row.alike }}.</b>
    </p>
    <p v-for="k in row.kept" :key="k" class="t16">Kept: {{ k }}</p>
    <form v-if="open" class="say" @submit.prevent="tell">
      <label class="field"
        ><span>where it is tucked</span
        ><input v-model="tucked" class="entry" name="tie-tucked" maxlength="160" autocomplete="off"
      /></label>
      <label class="field"
        ><span>its label</span
        ><input v-model="label" class="entry" name="tie-label" maxlength="160" autocomplete="off"
      /></label>
      <label class="field"
        ><span>what it can be taken for</span
        ><input v-model="alike" class="entry" name="tie-alike" maxlength="160" autocomplete="off"
      /></label>
      <label class="field"
        ><span>led under or over what</span
        ><input v-model="route" class="entry" name="tie-route" maxlength="160" autocomplete="off"
      /></label>
      <button type="submit" class="btn small">Told</button>
      <button type="button" class="btn small" :aria-pressed="row.hangs" @click="only(!row.hangs)">
        Only while it hangs
      </button>
    </form>
    <form v-if="row.state !== 'off' && (row.unproven || open)" class="say prove" @submit.prevent>
      <label class="field"
        ><span>what was measured, or what is wrong</span
        ><input v-model="words" class="entry" name="tie-words" maxlength="160" autocomplete="off"
      /></label>
      <button v-for="[how, name] in HOW" :key="how" type="button" class="btn small" @click="prove(how)">
        {{ name }}
      </button>
      <button type="button" class="btn small" @click="prove('seen', false)">Not right</button>
    </form>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </article>
</template>

<style scoped>
article {
  padding-bottom: 6px;
}
.say {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr)) auto auto;
  gap: 8px;
  align-items: end;
  padding: 4px 0 8px;
}
.prove {
  grid-template-columns: minmax(0, 1fr) repeat(4, auto);
}
@media (max-width: 900px) {
  .say,
  .prove {
    grid-template-columns: 1fr 1fr;
  }
  .prove .field {
    grid-column: 1 / -1;
  }
}
</style>
