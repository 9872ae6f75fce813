/** One bench a step kind; a missing case is a compile error. */
import type { Component } from 'vue'
import type { BenchView } from '@/api/client'
import CheckBench from './CheckBench.vue'
import FillBench from './FillBench.vue'
import InspectBench from './InspectBench.vue'
import MeasureBench from './MeasureBench.vue'
import RemoveBench from './RemoveBench.vue'
import RunBench from './RunBench.vue'
import TightenBench from './TightenBench.vue'

export const BENCHES: Record<BenchView['kind'], Component> = {
  check: CheckBench,
  inspect: InspectBench,
  remove: RemoveBench,
  measure: MeasureBench,
  tighten: TightenBench,
  fill: FillBench,
  run: RunBench,
}
