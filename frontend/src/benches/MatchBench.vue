<script setup lang="ts">
/** Like parts matched: a lane a cylinder, and by keys each lane's part; nothing is taken twice. */
import type { MeasureBenchView } from '@/api/client'
import PairLanes from '@/drawings/PairLanes.vue'

type Match = NonNullable<MeasureBenchView['match']>
const props = defineProps<{ match: Match; chosen: readonly string[] }>()
const emit = defineEmits<{ choose: [lane: number, inner: string] }>()
const pieces = () => props.match.lanes[0]?.options ?? []
</script>

<template>
  <section class="match" :aria-label="`Which ${match.inner} into which ${match.outer}`">
    <p v-if="match.refusal" class="t20 b outside">{{ match.refusal }}.</p>
    <p class="t16">
      {{ match.limit.name }}: a circle is a {{ match.inner }}, at the clearance that it gives. Yellow is the
      exact choice; touch another one to see what a swap costs.
    </p>
    <div class="scroll" tabindex="0" role="region" aria-label="Lanes">
      <PairLanes :match="match" :chosen="chosen" @choose="(lane, inner) => emit('choose', lane, inner)" />
    </div>
    <div class="picks">
      <label v-for="(lane, k) in match.lanes" :key="lane.result" class="field"
        ><span>{{ lane.outer_text }}</span
        ><select
          class="entry"
          :name="`pair_${k}`"
          :value="chosen[k]"
          @change="emit('choose', k, ($event.target as HTMLSelectElement).value)"
        >
          <option v-for="o in pieces()" :key="o.inner" :value="o.inner">{{ o.name }}</option>
        </select></label
      >
    </div>
  </section>
</template>

<style scoped>
.match {
  display: grid;
  gap: 8px;
}
.scroll {
  overflow-x: auto;
}
.picks {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(140px, 1fr));
  gap: 8px;
}
</style>
