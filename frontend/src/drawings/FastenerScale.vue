<script setup lang="ts">
/**
 * Fasteners to scale, heads in one line at zero of a millimetre ruler: lay the real bolt against its
 * neighbours.
 */
import { computed } from 'vue'
import type { BagLine } from '@/api/client'

const props = defineProps<{ lines: readonly BagLine[]; at?: number }>()
const emit = defineEmits<{ choose: [k: number] }>()
const ROW = 62
const most = computed(() => Math.max(40, ...props.lines.map((l) => Number(l.length) || 0)))
const top = computed(() => Math.ceil(most.value / 20) * 20)
const x = (mm: number) => 26 + (mm / top.value) * 250
const wide = (size: string) => Math.min(26, Math.max(8, (Number(/M(\d+)/.exec(size)?.[1]) || 8) * 1.7))
const ticks = computed(() => Array.from({ length: top.value / 10 + 1 }, (_, k) => k * 10))
const thread = (length: number) => x(length) - Math.min(x(length) - x(0) - 4, 70)
</script>

<template>
  <figure class="scale">
    <svg
      :viewBox="`0 0 300 ${34 + lines.length * ROW}`"
      width="300"
      :height="34 + lines.length * ROW"
      role="img"
      aria-label="Fasteners to scale"
    >
      <path :d="`M${x(0)} 26 H${x(top)}`" stroke="var(--ink)" stroke-width="1.6" />
      <g v-for="t in ticks" :key="t">
        <path :d="`M${x(t)} 26 v${t % 20 ? -5 : -9}`" stroke="var(--ink)" stroke-width="1.4" />
        <text v-if="t % 20 === 0" :x="x(t)" y="13" text-anchor="middle" class="t16" fill="var(--ink)">
          {{ t }}{{ t === top ? ' mm' : '' }}
        </text>
      </g>
      <g
        v-for="(l, k) in lines"
        :key="k"
        :transform="`translate(0 ${36 + k * ROW})`"
        @click="emit('choose', k)"
      >
        <rect
          v-if="k === at"
          x="1"
          y="-2"
          width="298"
          :height="ROW - 2"
          fill="var(--yel)"
          stroke="var(--yeledge)"
          stroke-width="2"
        />
        <template v-if="Number(l.length)">
          <rect
            :x="x(0) - wide(l.size) * 0.55"
            :y="16 - wide(l.size) * 0.85"
            :width="wide(l.size) * 0.55"
            :height="wide(l.size) * 1.7"
            fill="var(--line)"
          />
          <rect
            :x="x(0)"
            :y="16 - wide(l.size) / 2"
            :width="x(Number(l.length)) - x(0)"
            :height="wide(l.size)"
            fill="var(--metal)"
            stroke="var(--line)"
            stroke-width="1.4"
          />
          <path
            v-for="n in Math.max(2, Math.floor((x(Number(l.length)) - thread(Number(l.length))) / 4.4))"
            :key="n"
            :d="`M${thread(Number(l.length)) + n * 4.2} ${16 - wide(l.size) / 2} l-2.4 ${wide(l.size)}`"
            stroke="var(--line)"
            stroke-width="1.3"
          />
          <path
            v-if="k < lines.length - 1"
            :d="`M${x(Number(l.length))} 26 V${ROW * (lines.length - k)}`"
            stroke="var(--metal)"
            stroke-width="1"
            stroke-dasharray="4 3"
          />
        </template>
        <circle v-else :cx="x(0) + 12" cy="16" r="11" fill="none" stroke="var(--line)" stroke-width="3" />
        <text x="8" y="50" :fill="k === at ? 'var(--onyel)' : 'var(--ink)'" font-size="20" font-weight="780">
          {{ l.count }} × {{ l.size }}{{ l.length ? `×${l.length}` : '' }}
        </text>
        <text x="292" y="50" text-anchor="end" class="t16" :fill="k === at ? 'var(--onyel)' : 'var(--ink)'">
          {{ l.odd ? l.odd.slice(0, 14) : l.holes ? `holes ${l.holes}` : '' }}
        </text>
      </g>
    </svg>
    <figcaption class="sr">
      <ul>
        <li v-for="(l, k) in lines" :key="k">
          {{ l.count }} {{ l.size }} {{ l.length ? `${l.length} mm long` : '' }}
          {{ l.holes ? `holes ${l.holes}` : '' }} {{ l.odd ?? '' }}
        </li>
      </ul>
    </figcaption>
  </figure>
</template>

<style scoped>
.scale {
  margin: 0;
}
svg {
  display: block;
  max-width: 100%;
  height: auto;
}
g {
  cursor: pointer;
}
</style>
