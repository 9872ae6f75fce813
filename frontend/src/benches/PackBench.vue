<script setup lang="ts">
/**
 * Which shims bring a gap inside: the gap in section, every sum of the drawer, and the kit as it is
 * written on paper.
 */
import { computed } from 'vue'
import type { MeasureBenchView } from '@/api/client'
import StackSection from '@/drawings/StackSection.vue'
import SumLanes from '@/drawings/SumLanes.vue'
import KitForm from './KitForm.vue'

const props = defineProps<{
  bench: MeasureBenchView
  pack: MeasureBenchView['packs'][number]
  chosen: MeasureBenchView['packs'][number]['rows'][number] | null
  form: boolean
}>()
const emit = defineEmits<{ choose: [total: number]; done: [] }>()
const thick = computed(() => {
  const by = new Map(props.pack.kit.map((p) => [p.typed, Number(p.thickness.value)]))
  return [...(props.chosen?.pieces ?? [])].map((name) => by.get(name) ?? 0)
})
const gap = computed(() => props.chosen?.judgement ?? props.pack.bare)
const depths = computed(() => props.bench.readings.filter((r) => r.entry))
</script>

<template>
  <section class="pack" :aria-label="pack.name">
    <p v-for="w in pack.outdated" :key="w" class="block">{{ w }}.</p>
    <KitForm
      v-if="pack.wants_kit || form"
      :step="bench.base.step"
      :pack="pack"
      :tools="bench.kit_tools"
      @done="emit('done')"
    />
    <p v-if="pack.refusal" class="t20 b outside">{{ pack.refusal }}.</p>
    <div v-if="pack.bare?.value != null" class="both">
      <div>
        <StackSection
          :sketch="pack.sketch"
          :labels="pack.labels"
          :bare="pack.bare.value"
          :shims="chosen?.pieces ?? []"
          :thick="thick"
          :gap-text="`left ${gap?.value_text ?? ''}`"
          :sum-text="`shims ${chosen?.total_text ?? '0'}`"
        />
        <p class="t16 mut">gap and shims to scale, the rest is not</p>
      </div>
      <div>
        <SumLanes
          v-if="pack.rows.length"
          :rows="pack.rows"
          :lo="pack.bare.lo"
          :hi="pack.bare.hi"
          :chosen="chosen?.total ?? null"
          @choose="emit('choose', $event)"
        />
        <p class="t16 mut">
          {{ pack.kit_words }}<template v-if="pack.more">, {{ pack.more }} other sums further off</template>
        </p>
        <p v-if="pack.one_more" class="t16">{{ pack.one_more }}.</p>
      </div>
    </div>
    <ul class="depths" aria-label="Read for it">
      <li v-for="r in depths" :key="r.id">
        <span>{{ r.name }}</span> <b>{{ r.value_text }} {{ r.unit }}</b>
        <small>{{ r.tool }}, {{ r.day }}{{ r.taken_in ? `, ${r.taken_in}` : ', state not said' }}</small>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.pack {
  display: grid;
  gap: 8px;
}
.both {
  display: flex;
  gap: 8px;
  justify-content: space-between;
}
@media (max-width: 700px) {
  .both {
    flex-wrap: wrap;
  }
}
.depths li {
  border-top: 1px solid var(--hair);
  padding: 3px 0;
}
small {
  font-size: 16px;
  color: var(--mut);
  margin-left: 8px;
}
</style>
