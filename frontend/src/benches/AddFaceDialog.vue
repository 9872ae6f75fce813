<script setup lang="ts">
/** A face that no sheet names: on a part of the matrix, or on another. */
import { ref } from 'vue'
import type { InspectBenchView, PartFacts } from '@/api/client'
import { useBook } from '@/stores/book'

const props = defineProps<{ bench: InspectBenchView }>()
const book = useBook()
const open = ref(false)
const part = ref('')
const own = ref('')
const face = ref('')
const safety = ref('')
const on = ref<keyof typeof props.bench.surfaces>('casting')

function ask(at: PartFacts | null) {
  part.value = at?.id ?? ''
  own.value = face.value = safety.value = ''
  on.value = at?.faces.at(0)?.on ?? 'casting'
  open.value = true
}
const slug = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 48) || 'part'
async function add() {
  const known = props.bench.inspection.parts.find((p) => p.id === part.value)
  // a name in another script leaves no letters, so a number tells them apart
  const n = props.bench.inspection.total
  const id = known?.id ?? `own-${slug(own.value)}-${n}`
  const done = await book.handed({
    kind: 'face added',
    step: props.bench.base.step,
    part: id,
    part_name: known?.name ?? own.value.trim(),
    face: `own-${slug(face.value)}-${n}`,
    face_name: face.value.trim(),
    on: on.value as 'casting',
    safety: known ? null : (safety.value as 'none'),
  })
  if (done) open.value = false
}
defineExpose({ ask })
</script>

<template>
  <el-dialog v-model="open" title="Look at something else too" width="640" append-to-body>
    <form class="form" @submit.prevent="add">
      <label class="field"
        ><span>which part</span
        ><select v-model="part" class="entry" name="part">
          <option value="">another part</option>
          <option v-for="p in bench.inspection.parts" :key="p.id" :value="p.id">{{ p.name }}</option>
        </select></label
      >
      <label v-if="!part" class="field"
        ><span>its name</span
        ><input v-model="own" class="entry" name="partname" maxlength="80" autocomplete="off"
      /></label>
      <label v-if="!part" class="field"
        ><span>what hangs on it, if it fails</span
        ><select v-model="safety" class="entry" name="safety">
          <option value="" disabled>say what</option>
          <option v-for="(words, id) in bench.safety" :key="id" :value="id">{{ words }}</option>
        </select></label
      >
      <label class="field"
        ><span>which face, side or place</span
        ><input v-model="face" class="entry" name="facename" maxlength="24" autocomplete="off"
      /></label>
      <label class="field"
        ><span>what kind of face</span
        ><select v-model="on" class="entry" name="surface">
          <option v-for="(words, id) in bench.surfaces" :key="id" :value="id">{{ words }}</option>
        </select></label
      >
      <p v-if="book.refused" class="problem" role="alert">{{ book.refused }}</p>
      <button type="submit" class="btn" :disabled="!face.trim() || (!part && (!own.trim() || !safety))">
        To be looked at
      </button>
    </form>
  </el-dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}
</style>
