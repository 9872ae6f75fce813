<script setup lang="ts">
/**
 * The register of ties: every wire, hose, cable, line and rod that was parted, where it is tucked, what its
 * end is known by, whether it is back, and how that was proven.
 */
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { client, type Schemas } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { useView } from '@/composables/view'
import TieLine from '@/shell/TieLine.vue'
import WorkFrame from '@/shell/WorkFrame.vue'

const props = defineProps<{ build: string }>()
const router = useRouter()
const { view, problem } = useView<Schemas['TiesView']>(
  () => client.GET('/api/builds/{build}/ties', { params: { path: { build: props.build } } }),
  () => props.build,
)
const at = ref(-1)
const step = (by: number) => {
  const last = (view.value?.rows.length ?? 1) - 1
  at.value = Math.min(last, Math.max(0, at.value + by))
  document.getElementById(`tie-${at.value}`)?.focus()
}
/** Arrows go on from a line that has the focus; in a field they stay in the field. */
const onward = (event: KeyboardEvent, by: number) => {
  if (!(event.target instanceof HTMLButtonElement)) return
  event.preventDefault()
  step(by)
}
useKeys(() => ({
  ArrowDown: () => step(1),
  ArrowUp: () => step(-1),
  Escape: () => void router.push({ name: 'off', params: { build: props.build } }),
}))
</script>

<template>
  <WorkFrame :build="build" :step="null" desk="ties">
    <div v-if="view" class="ties">
      <h1 class="t28">{{ view.title }}</h1>
      <p v-if="!view.rows.length" class="t20">
        What a step parts, and what is left disconnected by hand, stands here with the place where it is
        tucked.
      </p>
      <ol @keydown.down="onward($event, 1)" @keydown.up="onward($event, -1)">
        <li v-for="(row, k) in view.rows" :key="row.item">
          <TieLine :id="`tie-${k}`" :row="row" :build="build" />
        </li>
      </ol>
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </WorkFrame>
</template>

<style scoped>
.ties {
  display: grid;
  gap: 12px;
}
</style>
