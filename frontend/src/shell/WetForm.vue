<script setup lang="ts">
/** A new place that is wet: where, which sort of joint, how wet and how sure. */
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import { GRADES, type Grade } from '@/composables/looking'
import { emptied, useServer } from '@/composables/server'
import DropSign from '@/drawings/DropSign.vue'
import { useBook } from '@/stores/book'

const props = defineProps<{ view: Schemas['LeaksView']; attempt: string | null }>()
const book = useBook()
const { problem, served } = useServer()
const name = ref('')
const joint = ref('other')
const sure = ref<Schemas['LeakSeenAct']['sure']>('certain')
const fluid = ref(props.view.looking[0]?.fluid ?? props.view.systems[0]?.kind ?? 'oil')
const called = (kind: string) => props.view.rows.find((r) => r.fluid === kind)?.name ?? kind
async function wet(grade: Grade) {
  const look = props.view.looking.find((l) => l.fluid === fluid.value)?.id ?? null
  const own = { name: name.value.trim(), joint: joint.value, sure: sure.value, look, attempt: props.attempt }
  const empty = emptied(name)
  const kept = await served(() => book.write({ kind: 'leak seen', fluid: fluid.value, grade, ...own }))
  if (kept !== undefined) empty()
}
</script>

<template>
  <form class="wet" aria-label="A wet place" @submit.prevent>
    <div class="fields">
      <label class="field"
        ><span>where it is wet</span
        ><input v-model="name" class="entry" name="leak-name" maxlength="80" autocomplete="off" /></label
      ><label class="field"
        ><span>what joint it is</span
        ><select v-model="joint" class="entry" name="leak-joint">
          <option v-for="j in view.joints" :key="j.id" :value="j.id">{{ j.name }}</option>
        </select></label
      ><label class="field"
        ><span>of which fluid</span
        ><select v-model="fluid" class="entry" name="leak-fluid">
          <option v-for="s in view.systems" :key="s.kind" :value="s.kind">{{ called(s.kind) }}</option>
        </select></label
      ><label class="field"
        ><span>how sure</span
        ><select v-model="sure" class="entry" name="leak-sure">
          <option value="certain">certain: seen to grow</option>
          <option value="likely">likely: seen once</option>
          <option value="doubtful">not sure: may be cleaner</option>
        </select></label
      >
    </div>
    <div class="grades">
      <button
        v-for="[grade, word] in GRADES.slice(1)"
        :key="grade"
        type="button"
        class="btn small"
        @click="wet(grade)"
      >
        <DropSign :grade="grade" />{{ word }}
      </button>
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </form>
</template>

<style scoped>
.wet {
  display: grid;
  gap: 8px;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.grades {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.grades .btn {
  display: flex;
  align-items: center;
  gap: 6px;
}
</style>
