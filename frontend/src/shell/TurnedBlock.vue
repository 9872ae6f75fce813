<script setup lang="ts">
/**
 * What an old build calls done and the rules of today do not: shown once on this device, until somebody has
 * seen it.
 */
import { computed, ref, watch } from 'vue'
import { useLocalStorage } from '@vueuse/core'
import { client, got, type Schemas } from '@/api/client'

const props = defineProps<{ build: string }>()
const seen = useLocalStorage<string[]>('hollet.turned', [])
const turned = ref<readonly Schemas['TurnedView'][]>([])
const all = ref(false)
const shown = computed(() => (seen.value.includes(props.build) ? [] : turned.value))
watch(
  () => props.build,
  async (build) => {
    turned.value = []
    if (seen.value.includes(build)) return
    const found = await got(client.GET('/api/builds/{build}/turned', { params: { path: { build } } })).catch(
      () => [],
    )
    if (build === props.build) turned.value = found
  },
  { immediate: true },
)
</script>

<template>
  <section v-if="shown.length" class="block turned" aria-label="Judged by the rules of today">
    <p class="b">
      This build is from before. Judged as Hollet judges now,
      {{ shown.length === 1 ? 'one thing does' : `${shown.length} things do` }} not stand as it was called
      done:
    </p>
    <ul>
      <li v-for="t in all ? shown : shown.slice(0, 3)" :key="t.number + t.words">
        <RouterLink
          :to="
            t.step
              ? { name: 'step', params: { build, step: t.step } }
              : { name: 'support', params: { build } }
          "
          >{{ t.number }} {{ t.words }}</RouterLink
        >
      </li>
    </ul>
    <div class="pair">
      <button v-if="shown.length > 3 && !all" type="button" class="btn small" @click="all = true">
        All {{ shown.length }}</button
      ><button type="button" class="btn small" @click="seen = [...seen, build]">Seen</button>
    </div>
  </section>
</template>

<style scoped>
.turned {
  margin-bottom: 10px;
}
li {
  padding: 3px 0;
}
.pair {
  display: flex;
  gap: 8px;
  margin-top: 6px;
}
</style>
