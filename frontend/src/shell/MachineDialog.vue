<script setup lang="ts">
/** A part goes to a machine shop: to which size or finish, with what bolted on, for which step. */
import { ref } from 'vue'
import { priceOf, useOwnId } from '@/composables/desk'
import PickOne from '@/shell/PickOne.vue'
import { useBook } from '@/stores/book'

defineProps<{ safeties: Record<string, string>; steps: readonly { id: string; name: string }[] }>()
const book = useBook()
const open = ref(false)
const { id, renew } = useOwnId('m')
const BLANK = {
  part: '',
  to_do: '',
  size: '',
  size_of: '',
  source: '',
  finish: '',
  on: '',
  supplier: '',
  price: '',
  step: '',
  safety: '',
}
const m = ref({ ...BLANK })
async function place() {
  const d = m.value
  const done = await book.handed({
    kind: 'machine ordered',
    work: id.value,
    part: d.part.trim(),
    to_do: d.to_do.trim(),
    size: d.size.trim(),
    size_of: d.size_of.trim(),
    source: d.source.trim(),
    finish: d.finish.trim(),
    with_on: d.on
      .split(',')
      .map((w) => w.trim())
      .filter(Boolean),
    supplier: d.supplier.trim(),
    price: priceOf(d.price),
    step: d.step || null,
    safety: (d.safety || null) as 'none' | null,
  })
  if (!done) return
  m.value = { ...BLANK }
  renew()
  open.value = false
}
defineExpose({
  ask: () => {
    book.refused = ''
    open.value = true
  },
})
</script>

<template>
  <el-dialog v-model="open" title="To the machine shop" width="760" append-to-body>
    <form class="form" @submit.prevent="place">
      <label class="field"
        ><span>part</span
        ><input v-model="m.part" class="entry" name="part" maxlength="120" autocomplete="off"
      /></label>
      <label class="field"
        ><span>what is done to it</span
        ><input
          v-model="m.to_do"
          class="entry"
          name="to_do"
          maxlength="120"
          autocomplete="off"
          placeholder="bore and hone"
      /></label>
      <label class="field"
        ><span>size it comes back with</span
        ><input
          v-model="m.size"
          class="entry"
          name="size"
          maxlength="60"
          autocomplete="off"
          placeholder="84.500 to 84.515 mm"
      /></label>
      <label class="field"
        ><span>of what</span
        ><input
          v-model="m.size_of"
          class="entry"
          name="size_of"
          maxlength="80"
          autocomplete="off"
          placeholder="bore"
      /></label>
      <label class="field"
        ><span>who says that size</span
        ><input v-model="m.source" class="entry" name="source" maxlength="120" autocomplete="off"
      /></label>
      <label class="field"
        ><span>finish</span
        ><input v-model="m.finish" class="entry" name="finish" maxlength="200" autocomplete="off"
      /></label>
      <label class="field wide"
        ><span>bolted on while it is cut, with commas</span
        ><input
          v-model="m.on"
          class="entry"
          name="on"
          maxlength="400"
          autocomplete="off"
          placeholder="torque plate, main caps at their torque"
      /></label>
      <label class="field"
        ><span>shop</span
        ><input v-model="m.supplier" class="entry" name="machinist" maxlength="120" autocomplete="off"
      /></label>
      <label class="field"
        ><span>price</span
        ><input v-model="m.price" class="entry" name="price" inputmode="decimal" autocomplete="off"
      /></label>
      <label class="field wide"
        ><span>which step waits for it</span
        ><select v-model="m.step" class="entry" name="step">
          <option value="">none</option>
          <option v-for="s in steps" :key="s.id" :value="s.id">{{ s.name }}</option>
        </select></label
      >
      <span class="wide t16">Is it a part of</span>
      <PickOne
        v-model="m.safety"
        class="wide"
        :options="Object.entries(safeties).map(([value, label]) => ({ value, label }))"
        label="Is it a part of"
      />
      <p v-if="book.refused" class="problem wide" role="alert">{{ book.refused }}</p>
      <button
        type="submit"
        class="btn wide"
        :disabled="!m.part.trim() || !m.to_do.trim() || !m.supplier.trim()"
      >
        Write the order
      </button>
    </form>
  </el-dialog>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.wide {
  grid-column: 1 / -1;
}
@media (max-width: 700px) {
  .form {
    grid-template-columns: 1fr;
  }
}
</style>
