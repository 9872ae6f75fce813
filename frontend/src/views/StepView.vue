<script setup lang="ts">
/** A build at a step; without a step it goes to where the mechanic stopped. */
import { computed, watch } from 'vue'
import { useRouter } from 'vue-router'
import { BENCHES } from '@/benches'
import { useBook } from '@/stores/book'
import WorkFrame from '@/shell/WorkFrame.vue'

const props = defineProps<{ build: string; step?: string }>()
const book = useBook()
const router = useRouter()
const bench = computed(() =>
  book.card?.id === props.build && book.bench?.base.step === props.step ? book.bench : null,
)

watch(
  () => [props.step, book.frame?.current, book.card?.id],
  () => {
    if (!props.step && book.card?.id === props.build && book.frame)
      void router.replace({ name: 'step', params: { build: props.build, step: book.frame.current } })
  },
  { immediate: true },
)
watch(
  () => props.step,
  () => {
    book.refused = ''
  },
)
</script>

<template>
  <WorkFrame :build="build" :step="step ?? null" :next="bench?.base.next">
    <component :is="BENCHES[bench.kind]" v-if="bench" :key="bench.base.step" :bench="bench" />
  </WorkFrame>
</template>
