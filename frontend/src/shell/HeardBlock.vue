<script setup lang="ts">
/** The devices that are heard now, and which tool of the shop each of them is. */
import { computed, onUnmounted } from 'vue'
import type { Instrument, InstrumentView } from '@/api/client'
import { useFeed } from '@/stores/feed'

const props = defineProps<{ tools: Instrument[] }>()
const emit = defineEmits<{ is: [tool: Instrument, device: string | null] }>()
const feed = useFeed()
const stop = feed.listen()
onUnmounted(stop)
const heard = computed(() => feed.view?.instruments ?? [])
/** Tools of its sort, and the one that it is. */
function fitting(device: InstrumentView): Instrument[] {
  return props.tools.filter((t) => t.dimension === device.measures && (!t.device || t.device === device.id))
}
function chosen(device: InstrumentView, event: Event) {
  const id = (event.target as HTMLSelectElement).value
  const was = props.tools.find((t) => t.device === device.id)
  const now = props.tools.find((t) => t.id === id)
  if (now) emit('is', now, device.id)
  else if (was) emit('is', was, null)
}
</script>

<template>
  <section class="heard" aria-label="Instruments that send">
    <h2 class="t28">Instruments that send</h2>
    <p v-if="feed.deaf" class="block" role="status">Nothing is heard of Hollet now.</p>
    <p v-else-if="!heard.length" class="t20">
      None is heard. One that speaks the open line protocol shows here once it is switched on.
    </p>
    <table v-else>
      <thead>
        <tr>
          <th>It says it is</th>
          <th>reads</th>
          <th>is this tool</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="d in heard" :key="d.id">
          <td>
            <b>{{ d.id }}</b> {{ d.name }} <span class="t16 mut">{{ d.words }}</span>
          </td>
          <td class="nowrap">{{ d.reads || d.unit }}</td>
          <td>
            <select
              class="entry"
              :aria-label="`${d.id} is`"
              :value="d.tool ?? ''"
              @change="chosen(d, $event)"
            >
              <option value="">none: nothing of it is taken</option>
              <option v-for="t in fitting(d)" :key="t.id" :value="t.id">{{ t.code }} {{ t.name }}</option>
            </select>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.heard {
  margin: 24px 0;
}
.nowrap {
  white-space: nowrap;
}
</style>
