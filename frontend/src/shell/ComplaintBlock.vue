<script setup lang="ts">
/** The complaint in its words and conditions; the trial again, each condition pressed that it had. */
import { reactive, ref } from 'vue'
import { v7 } from 'uuid'
import type { Schemas } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'

defineProps<{ complaints: readonly Schemas['ComplaintFacts'][] }>()
const book = useBook()
const { problem, served } = useServer()
const open = ref(false)
const words = ref('')
const speed = ref('')
const load = ref<Schemas['ComplaintSaidAct']['load']>('')
const heat = ref<Schemas['ComplaintSaidAct']['heat']>('')
type Doing = NonNullable<Schemas['ComplaintSaidAct']['doing']>[number]
const doing = ref<Doing[]>([])
const DOING: readonly Doing[] = ['braking', 'on the throttle', 'coasting', 'turning', 'standing']
const FOUND = ['gone', 'less', 'the same', 'worse', 'something else'] as const
const under = reactive<Record<string, string[]>>({})

async function say() {
  const told = { words: words.value.trim(), speed: speed.value.trim(), load: load.value, heat: heat.value }
  const entry = { kind: 'complaint said' as const, complaint: v7(), ...told, doing: doing.value }
  if ((await served(() => book.write(entry))) === undefined) return
  ;[open.value, words.value, speed.value, load.value, heat.value, doing.value] = [false, '', '', '', '', []]
}
const driven = (c: Schemas['ComplaintFacts'], found: (typeof FOUND)[number]) =>
  served(() => book.write({ kind: 'trial driven', complaint: c.id, found, under: under[c.id] ?? [] }))
function toggle(id: string, what: string) {
  const had = under[id] ?? []
  under[id] = had.includes(what) ? had.filter((w) => w !== what) : [...had, what]
}
const turn = (what: Doing) =>
  (doing.value = doing.value.includes(what) ? doing.value.filter((d) => d !== what) : [...doing.value, what])
</script>

<template>
  <section aria-label="Complaint" class="complaint">
    <h2 class="t20">Complaint, and the same trial</h2>
    <article v-for="c in complaints" :key="c.id" :aria-label="c.words">
      <p class="t20">
        <b>{{ c.words }}</b>
        <span :class="c.answered ? 'inside' : 'too_close'">{{
          c.answered ? 'gone, by the same trial' : c.waits
        }}</span>
      </p>
      <p v-for="t in c.trials" :key="t" class="t16 mut">{{ t }}</p>
      <template v-if="!c.answered">
        <div v-if="c.conditions.length" class="two" role="group" aria-label="The trial was">
          the trial was<button
            v-for="w in c.conditions"
            :key="w"
            type="button"
            class="btn small"
            :aria-pressed="(under[c.id] ?? []).includes(w)"
            @click="toggle(c.id, w)"
          >
            {{ w }}
          </button>
        </div>
        <div class="two" role="group" aria-label="It is">
          it is<button v-for="f in FOUND" :key="f" type="button" class="btn small" @click="driven(c, f)">
            {{ f }}
          </button>
        </div>
      </template>
    </article>
    <button type="button" class="btn small" :aria-expanded="open" @click="open = !open">
      {{ complaints.length ? 'Another complaint' : 'Write the complaint' }}
    </button>
    <form v-if="open" class="form" @submit.prevent="say">
      <label class="field"
        ><span>in the words of whoever drove</span
        ><input
          v-model="words"
          class="entry"
          name="complaint-words"
          maxlength="400"
          autocomplete="off" /></label
      ><label class="field"
        ><span>at which speed</span
        ><input v-model="speed" class="entry" name="complaint-speed" maxlength="60" autocomplete="off"
      /></label>
      <div class="two">
        <button
          v-for="l in ['empty', 'loaded', 'towing'] as const"
          :key="l"
          type="button"
          class="btn small"
          :aria-pressed="load === l"
          @click="load = load === l ? '' : l"
        >
          {{ l }}</button><button
          v-for="h in ['cold', 'hot'] as const"
          :key="h"
          type="button"
          class="btn small"
          :aria-pressed="heat === h"
          @click="heat = heat === h ? '' : h"
        >
          {{ h }}</button
        ><button
          v-for="d in DOING"
          :key="d"
          type="button"
          class="btn small"
          :aria-pressed="doing.includes(d)"
          @click="turn(d)"
        >
          {{ d }}
        </button>
      </div>
      <button type="submit" class="btn small" :disabled="!words.trim()">Write it</button>
    </form>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.complaint {
  margin-top: 12px;
}
.form {
  display: grid;
  gap: 8px;
  margin: 8px 0;
}
.two {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin: 4px 0;
}
</style>
