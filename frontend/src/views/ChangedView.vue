<script setup lang="ts">
/**
 * What is not as it left the works: what earlier hands did and what becomes of it, parts changed or made,
 * wires mended, what stands in for something, bolts left empty for a later part.
 */
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { v7 } from 'uuid'
import { client, type Schemas } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { useView } from '@/composables/view'
import AlteredForm from '@/shell/AlteredForm.vue'
import EarlierRow from '@/shell/EarlierRow.vue'
import WireRow from '@/shell/WireRow.vue'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useBook } from '@/stores/book'
import { capital } from '@/words'

const props = defineProps<{ build: string }>()
const book = useBook()
const router = useRouter()
const { view, problem, served } = useView<Schemas['ChangedView']>(
  () => client.GET('/api/builds/{build}/changed', { params: { path: { build: props.build } } }),
  () => props.build,
)
const form = ref<'altered' | 'wire' | null>(null)
const keeping = ref<string | null>(null)
const bears = ref('')
const why = ref('')
const safety = ref('')
const at = computed(() => book.frame?.current ?? '')
const facts = computed(() => view.value?.facts)

async function keep(item: string) {
  await served(() =>
    book.write({
      kind: 'kept so',
      step: at.value,
      item,
      bears: bears.value.trim(),
      why: why.value.trim(),
      safety: safety.value as 'none',
    }),
  )
  if (!problem.value) keeping.value = null
}
function ask(item: string) {
  keeping.value = item
  bears.value = why.value = safety.value = ''
}
const show = (one: 'altered' | 'wire') => {
  form.value = form.value === one ? null : one
}
useKeys(() => ({
  c: () => show('altered'),
  w: () => show('wire'),
  Escape: () => void router.push({ name: 'findings', params: { build: props.build } }),
}))
</script>

<template>
  <WorkFrame :build="build" :step="null" desk="findings">
    <div v-if="view && facts" class="desk">
      <h1 class="t28">{{ view.title }}</h1>
      <p v-if="problem || book.refused" class="problem" role="alert">{{ problem || book.refused }}</p>
      <div class="chips">
        <button type="button" class="btn small" :aria-pressed="form === 'altered'" @click="show('altered')">
          A part changed or made <kbd>C</kbd>
        </button>
        <button type="button" class="btn small" :aria-pressed="form === 'wire'" @click="show('wire')">
          A wire to mend <kbd>W</kbd>
        </button>
      </div>
      <AlteredForm v-if="form === 'altered'" :id="v7()" :step="at" :needs="view.needs" @done="form = null" />
      <WireRow v-if="form === 'wire'" :step="at" :build="build" @done="form = null" />
      <section v-if="facts.earlier.length" aria-label="Earlier hands">
        <h2 class="t20">Earlier hands</h2>
        <EarlierRow v-for="row in facts.earlier" :key="row.key" :row="row" :build="build" />
      </section>
      <section v-if="facts.altered.length" aria-label="Changed and made parts">
        <h2 class="t20">Changed or made here</h2>
        <article v-for="row in facts.altered" :key="row.id">
          <p class="b">{{ capital(row.what) }}: {{ row.differs }}</p>
          <p class="t16">
            Held by {{ row.held }}. Undone: {{ row.undo }}.
            <template v-if="row.for_name">For {{ row.for_name }}. </template
            ><span class="mut">{{ row.who }}</span>
          </p>
          <p v-if="row.asked" class="too_close b">{{ capital(row.asked) }}</p>
          <AlteredForm v-if="row.asked" :id="row.id" :step="row.step" :needs="view.needs" :was="row" />
        </article>
      </section>
      <section v-if="facts.wires.length" aria-label="Mended wires">
        <h2 class="t20">Wires</h2>
        <WireRow v-for="row in facts.wires" :key="row.id" :step="row.step" :build="build" :row="row" />
      </section>
      <section v-if="facts.stand_ins.length" aria-label="What stands in">
        <h2 class="t20">What stands in for something</h2>
        <article v-for="row in facts.stand_ins" :key="row.item">
          <p class="b">{{ capital(row.what) }}</p>
          <p class="t16">
            bears {{ row.bears }}{{ row.kept ? `. It stays: ${row.kept}` : ', to be undone: L' }}
          </p>
          <button
            v-if="row.may_keep && keeping !== row.item"
            type="button"
            class="btn small"
            @click="ask(row.item)"
          >
            It stays, in writing
          </button>
          <form v-if="keeping === row.item" class="keep" @submit.prevent="keep(row.item)">
            <label class="field"
              ><span>how much it bears, and for how long</span
              ><input v-model="bears" class="entry" name="bears" maxlength="160" autocomplete="off"
            /></label>
            <label class="field"
              ><span>why it stays</span
              ><input v-model="why" class="entry" name="why" maxlength="400" autocomplete="off"
            /></label>
            <label class="field"
              ><span>is it one of these?</span
              ><select v-model="safety" class="entry" name="safety">
                <option value="">say it</option>
                <option v-for="(name, id) in view.safety" :key="id" :value="id">{{ name }}</option>
              </select></label
            >
            <button type="submit" class="btn small" :disabled="!safety">Keep it in writing</button>
          </form>
        </article>
      </section>
      <section v-if="facts.empty.length" aria-label="Bolts left empty">
        <h2 class="t20">Left empty on purpose</h2>
        <p v-for="row in facts.empty" :key="row.what">
          <RouterLink v-if="row.step" :to="{ name: 'step', params: { build, step: row.step } }">{{
            row.what
          }}</RouterLink>
        </p>
      </section>
    </div>
  </WorkFrame>
</template>

<style scoped>
.desk {
  display: grid;
  gap: 14px;
}
section {
  border-top: 2px solid var(--line);
  padding-top: 6px;
}
article {
  border-top: 1px solid var(--hair);
  padding: 8px 0;
  display: grid;
  gap: 4px;
}
.keep {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr auto;
  gap: 8px;
  align-items: end;
}
@media (max-width: 900px) {
  .keep {
    grid-template-columns: 1fr;
  }
}
</style>
