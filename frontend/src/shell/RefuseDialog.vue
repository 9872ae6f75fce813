<script setup lang="ts">
/** A part is refused, or taken in writing: what is wrong, until when it may go back, or why and by whom. */
import { computed, ref } from 'vue'
import { sendPhoto } from '@/api/client'
import { useServer } from '@/composables/server'
import PhotoButton from '@/shell/PhotoButton.vue'
import { useBook } from '@/stores/book'
import type { PartRow } from '@/stores/parts'

const props = defineProps<{ row: PartRow; order: string | null; most: number; wrong: string }>()
const emit = defineEmits<{ done: [] }>()
const book = useBook()
const open = ref(false)
const writing = ref(false)
const words = ref('')
const until = ref('')
const count = ref(1)
const name = ref('')
const licensed = ref('')
const photo = ref<string | null>(null)
const { problem, served } = useServer()
async function taken(file: File) {
  const stored = await served(() => sendPhoto(file))
  if (stored) photo.value = stored.photo
}
const title = computed(() =>
  writing.value ? `${props.row.name}: take it in writing` : `${props.row.name}: refuse it`,
)
function ask(what: 'refuse' | 'in_writing') {
  writing.value = what === 'in_writing'
  words.value = writing.value ? '' : props.wrong
  until.value = name.value = licensed.value = ''
  count.value = props.most
  photo.value = null
  book.refused = ''
  open.value = true
}
async function done() {
  const need = props.row.need.id
  const taken = writing.value
    ? await book.handed({
        kind: 'part taken',
        need,
        order: props.order,
        count: Number(count.value),
        how: 'in_writing',
        reason: words.value.trim(),
        name: name.value.trim() || null,
        licensed: licensed.value.trim() || null,
      })
    : await book.handed({
        kind: 'part refused',
        need,
        order: props.order ?? '',
        count: Number(count.value),
        wrong: words.value.trim(),
        photo: photo.value,
        back_by: until.value.trim() || null,
      })
  if (taken) {
    open.value = false
    emit('done')
  }
}
defineExpose({ ask })
</script>

<template>
  <el-dialog v-model="open" :title="title" width="640" append-to-body>
    <form class="form" @submit.prevent="done">
      <p v-if="writing && row.need.safety" class="block">
        It is a safety part: its rung stays shut until it is replaced, or inspected by somebody licensed.
      </p>
      <label class="field"
        ><span>{{ writing ? 'why it will do' : 'what is wrong with it' }}</span
        ><textarea v-model="words" class="entry" name="words" maxlength="400" /></label
      ><label class="field"
        ><span>how many</span
        ><input v-model="count" class="entry" name="count" inputmode="numeric" autocomplete="off"
      /></label>
      <label v-if="!writing" class="field"
        ><span>back by (left empty, it comes due tomorrow: ask until when)</span
        ><input v-model="until" class="entry" name="until" autocomplete="off" placeholder="in 14 days"
      /></label>
      <template v-else
        ><label class="field"
          ><span>name of who takes it</span
          ><input v-model="name" class="entry" name="name" maxlength="80" autocomplete="off" /></label
        ><label v-if="row.need.safety" class="field"
          ><span>licensed inspection: name and reference</span
          ><input
            v-model="licensed"
            class="entry"
            name="licensed"
            maxlength="200"
            autocomplete="off" /></label
      ></template>
      <p v-if="!writing" class="pic">
        <PhotoButton :label="photo ? 'Another photo' : 'A photo of it'" @taken="taken" />
        <img v-if="photo" :src="`/api/photos/${photo}.jpg`" alt="what is wrong with it" />
      </p>
      <p v-if="problem || book.refused" class="problem" role="alert">{{ problem || book.refused }}</p>
      <button type="submit" class="btn">{{ writing ? 'Accept in writing' : 'Refuse it' }}</button>
    </form>
  </el-dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 10px;
}
.pic {
  display: flex;
  gap: 12px;
  align-items: center;
}
img {
  height: 90px;
}
</style>
