<script setup lang="ts">
/**
 * The photos of a step or a removal: the newest large, with its pins and a word each; one button takes
 * another, one a clip.
 */
import { computed, ref, watch } from 'vue'
import type { ClipView, PhotoView, Pin } from '@/api/client'
import PinPhoto from '@/drawings/PinPhoto.vue'
import ClipButton from '@/shell/ClipButton.vue'
import ClipRow from '@/shell/ClipRow.vue'
import PhotoButton from '@/shell/PhotoButton.vue'
import { useBook } from '@/stores/book'

const props = defineProps<{
  photos: readonly PhotoView[]
  clips?: readonly ClipView[]
  what: string
  step: string | null
  removal?: string | null
  still?: boolean
  cap?: string
}>()
const book = useBook()
const button = ref<InstanceType<typeof PhotoButton> | null>(null)
const at = ref(0)
const pin = ref<number | null>(null)
const word = ref('')
const photo = computed(() => props.photos[at.value] ?? null)
watch(
  () => props.photos.length,
  (n) => {
    at.value = Math.max(0, n - 1)
  },
  { immediate: true },
)
watch(
  () => photo.value?.photo,
  () => {
    pin.value = null
  },
) // not when the same photo is only read again

const taken = (file: File) =>
  book.act(
    {
      kind: 'photo',
      photo: '0'.repeat(64),
      width: 1,
      height: 1,
      what: props.what,
      step: props.step,
      removal: props.removal ?? null,
      pins: [],
    },
    file,
  )
const filmed = (clip: Blob, seconds: number) =>
  book.act(
    {
      kind: 'clip',
      clip: '0'.repeat(64),
      seconds,
      what: props.what,
      step: props.step,
      removal: props.removal ?? null,
    },
    clip,
  )
const keep = (pins: Pin[]) => photo.value && book.act({ kind: 'pinned', photo: photo.value.photo, pins })
async function set(x: number, y: number) {
  const pins = photo.value?.pins ?? []
  const n = Math.max(0, ...pins.map((p) => p.n)) + 1
  if (n > 99) return
  if (
    await keep([...pins, { n, x: Math.round(x * 1000) / 1000, y: Math.round(y * 1000) / 1000, word: '' }])
  ) {
    pin.value = n
    word.value = ''
  }
}
function choose(n: number) {
  pin.value = n
  word.value = photo.value?.pins.find((p) => p.n === n)?.word ?? ''
}
async function say() {
  if (
    photo.value &&
    (await keep(photo.value.pins.map((p) => (p.n === pin.value ? { ...p, word: word.value.trim() } : p))))
  )
    pin.value = null
}
async function off() {
  if (photo.value && (await keep(photo.value.pins.filter((p) => p.n !== pin.value)))) pin.value = null
}
defineExpose({ take: () => button.value?.open() })
</script>

<template>
  <div class="photos">
    <PinPhoto
      v-if="photo"
      :photo="photo"
      :pins="photo.pins"
      :at="pin"
      :still="still"
      @set="set"
      @choose="choose"
    />
    <div v-else-if="cap" class="none"><p>No photo yet.</p></div>
    <form v-if="pin !== null && !still" class="word" @submit.prevent="say">
      <label class="field"
        ><span>pin {{ pin }}, a word</span
        ><input v-model="word" class="entry" maxlength="40" name="pinword" autocomplete="off" /></label
      ><button type="submit" class="btn small">Kept</button
      ><button type="button" class="btn small" @click="off">Take it off</button>
    </form>
    <div class="row">
      <PhotoButton
        ref="button"
        :label="photo ? 'Another photo' : 'Take a photo'"
        :cap="cap"
        @taken="taken"
      /><ClipButton v-if="clips" :keep="filmed" />
      <template v-if="photos.length > 1"
        ><button
          v-for="(p, k) in photos"
          :key="p.photo"
          type="button"
          class="btn small"
          :aria-pressed="k === at"
          :aria-label="`photo ${k + 1}: ${p.what}`"
          @click="at = k"
        >
          {{ k + 1 }}
        </button></template
      >
    </div>
    <ClipRow v-if="clips?.length" :clips="clips" />
  </div>
</template>

<style scoped>
.photos {
  display: grid;
  gap: 8px;
  align-content: start;
  min-width: 0;
}
.none {
  border: 2px dashed var(--metal);
  min-height: 120px;
  display: grid;
  place-items: center;
  color: var(--mut);
}
.word {
  display: flex;
  gap: 6px;
  align-items: flex-end;
  flex-wrap: wrap;
}
.word .field {
  flex: 1 1 120px;
}
.row {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
}
</style>
