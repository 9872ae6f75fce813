<script setup lang="ts">
/** Joints looked at again after they have run: what is due, all held or which moved, and what was found. */
import { reactive, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { movedOf } from '@/composables/looks'
import { emptied, useServer } from '@/composables/server'
import { useBook } from '@/stores/book'
import { capital } from '@/words'

const props = defineProps<{ looks: Schemas['Looks']; step: string }>()
const book = useBook()
const reads = ref('')
const moved = reactive<Record<string, string>>({})
const tool = reactive<Record<string, string>>({})
const { problem, asks, served } = useServer()
const at = ref('') // the joint whose refusal is shown

async function odometer(sure = false) {
  if (!reads.value.trim()) return
  at.value = ''
  const empty = emptied(reads)
  const kept = await served(async () => {
    await book.write({ kind: 'odometer said', typed: reads.value.trim(), unit: 'km', sure })
    return true
  })
  if (kept) empty()
}
async function looked(joint: Schemas['LookJoint'], text: string) {
  at.value = joint.joint
  const kept = await served(async () => {
    await book.write({
      kind: 'looked again',
      step: props.step,
      joint: joint.joint,
      moved: movedOf(text),
      wrench: joint.by_marks ? null : (tool[joint.joint] ?? joint.tools.at(0)?.id ?? null),
      words: '',
    })
    return true
  })
  if (kept && moved[joint.joint] === text) moved[joint.joint] = ''
}
</script>

<template>
  <section class="looks" aria-label="Looked at again">
    <form class="line" @submit.prevent="odometer()">
      <label class="field"
        ><span>odometer, {{ looks.odometer }}; now, km</span
        ><input v-model="reads" class="entry" name="odometer" inputmode="decimal" autocomplete="off" /></label
      ><button type="submit" class="btn small">It reads this</button>
      <button v-if="asks && !at" type="button" class="btn small" @click="odometer(true)">It is right</button>
    </form>
    <p v-if="problem && !at" class="problem" role="alert">{{ problem }}</p>
    <article v-for="j in looks.joints" :key="j.joint" :aria-label="j.name">
      <h2 class="t20">
        {{ j.name }} <span class="t16">{{ j.by_marks ? 'by their marks, not pulled again' : j.asked }}</span>
      </h2>
      <p v-if="j.facts && j.facts.of" class="t16" :class="{ too_close: j.facts.due, b: j.facts.due }">
        {{ j.facts.over ? 'Looked at as often as it had to be' : capital(j.facts.words) }}
        <b v-if="j.facts.left && !j.facts.over"> {{ j.facts.left }}</b>{{ ' ' }}
        <span v-if="j.facts.assumed" class="assumed">rule of thumb</span>
      </p>
      <p v-if="!j.ready" class="block">{{ capital(j.waits) }}</p>
      <div v-else class="line">
        <label v-if="!j.by_marks" class="field"
          ><span>with</span
          ><select
            class="entry"
            :name="`wrench ${j.joint}`"
            :value="tool[j.joint] ?? j.tools.at(0)?.id"
            @change="tool[j.joint] = ($event.target as HTMLSelectElement).value"
          >
            <option v-for="t in j.tools" :key="t.id" :value="t.id">{{ t.code }}, {{ t.words }}</option>
          </select></label
        ><button type="button" class="btn" @click="looked(j, '')">All {{ j.bolts }} held</button
        ><label class="field"
          ><span>or which moved{{ j.by_marks ? '' : ', at what' }}</span
          ><input
            v-model="moved[j.joint]"
            class="entry"
            :name="`moved ${j.joint}`"
            :placeholder="j.by_marks ? '3 5' : '3: 84, 5'"
            autocomplete="off" /></label
        ><button type="button" class="btn small" @click="looked(j, moved[j.joint] ?? '')">These moved</button>
      </div>
      <p v-if="problem && at === j.joint" class="problem" role="alert">{{ problem }}</p>
      <p v-if="j.facts?.trend" class="block b">{{ j.facts.trend }}</p>
      <table v-if="j.facts?.rows.length">
        <tbody>
          <tr v-for="(r, k) in j.facts.rows" :key="k">
            <td>{{ r.when }}</td>
            <td>{{ r.km }}</td>
            <td :class="{ outside: r.moved }">{{ r.words }}</td>
          </tr>
        </tbody>
      </table>
    </article>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: flex-end;
}
.field {
  flex: 1;
  min-width: 150px;
}
article {
  border-top: 1px solid var(--hair);
  padding: 8px 0;
}
table {
  width: 100%;
}
</style>
