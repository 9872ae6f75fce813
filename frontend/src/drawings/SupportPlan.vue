<script setup lang="ts">
/** The vehicle from above: what stands under which point, where nothing may ever stand, front at the left. */
import { computed } from 'vue'
import type { SupportDesk } from '@/api/client'
import { looseMarks, planMarks } from './supports'

type Map = SupportDesk['map']
const props = defineProps<{ map: Map; chosen: string | null }>()
const emit = defineEmits<{ choose: [point: string] }>()
const X = (x: number) => 30 + x * 580
const Y = (y: number) => 14 + y * 192
const marks = computed(() => planMarks(props.map.supports, X, Y))
const loose = computed(() => looseMarks(props.map.supports, 144))
</script>

<template>
  <figure class="from-above">
    <svg
      viewBox="0 0 640 230"
      width="640"
      height="230"
      role="img"
      aria-label="Supports from above, front at the left"
    >
      <g fill="none" stroke="var(--line)" stroke-width="2.2">
        <path d="M70 40 Q44 110 70 180 H560 V40 Z" fill="var(--now)" />
        <path d="M90 74 H560 M90 146 H560" stroke-width="3.4" />
        <path d="M200 40 V180 M372 40 V180" stroke-width="1.2" />
        <rect x="92" y="20" width="62" height="20" rx="4" />
        <rect x="92" y="180" width="62" height="20" rx="4" />
        <rect x="474" y="20" width="62" height="20" rx="4" />
        <rect x="474" y="180" width="62" height="20" rx="4" />
        <path d="M505 40 V180" stroke-width="5" />
        <circle cx="505" cy="110" r="17" fill="var(--now)" />
        <rect x="96" y="84" width="70" height="52" fill="var(--zinc2)" />
        <path d="M166 94 L186 90 V130 L166 126 M186 96 H290 V124 H186 Z" fill="var(--zinc2)" />
        <path d="M290 110 H488" stroke-dasharray="14 4 3 4" stroke-width="1.4" />
      </g>
      <text x="4" y="114" class="t16" fill="var(--ink)">front</text>
      <template v-for="p in map.points" :key="p.id">
        <g v-if="p.forbidden">
          <rect
            :x="X(p.x) - 16"
            :y="Y(p.y) - 9"
            width="32"
            height="18"
            fill="var(--now)"
            stroke="var(--ink)"
            stroke-width="1.4"
          />
          <path
            v-for="k in 4"
            :key="k"
            :d="`M${X(p.x) - 16 + k * 8 - 8} ${Y(p.y) + 9} l8 -18`"
            stroke="var(--ink)"
            stroke-width="1.4"
          />
        </g>
        <g v-else class="point" @click="emit('choose', p.name)">
          <circle :cx="X(p.x)" :cy="Y(p.y)" r="16" fill="transparent" />
          <circle
            :cx="X(p.x)"
            :cy="Y(p.y)"
            :r="chosen === p.name ? 11 : 4"
            :fill="chosen === p.name ? 'var(--yel)' : 'var(--metal)'"
            :stroke="chosen === p.name ? 'var(--onyel)' : 'none'"
            stroke-width="3"
          />
        </g>
      </template>
      <g v-for="m in marks" :key="m.numbers[0]">
        <rect
          v-if="m.kind !== 'jack' && m.kind !== 'hook'"
          :x="m.x - 16"
          :y="m.y - 16"
          width="32"
          height="32"
          :fill="m.stays ? 'var(--ink)' : 'var(--now)'"
          :stroke="m.stays ? 'var(--ink)' : 'var(--out)'"
          stroke-width="3"
        />
        <circle
          v-else
          :cx="m.x"
          :cy="m.y"
          r="16"
          fill="var(--now)"
          :stroke="m.stays ? 'var(--ink)' : 'var(--out)'"
          stroke-width="3.4"
        />
        <text
          :x="m.x"
          :y="m.y + 7"
          text-anchor="middle"
          font-size="20"
          font-weight="800"
          :fill="
            m.stays && m.kind !== 'jack' && m.kind !== 'hook'
              ? 'var(--now)'
              : m.stays
                ? 'var(--ink)'
                : 'var(--out)'
          "
        >
          {{ m.numbers[0] }}
        </text>
      </g>
      <g v-for="m in loose" :key="m.numbers[0]">
        <circle
          :cx="m.x"
          :cy="m.y"
          r="15"
          fill="var(--now)"
          :stroke="m.stays ? 'var(--ink)' : 'var(--out)'"
          stroke-width="2.4"
          stroke-dasharray="5 4"
        />
        <text
          :x="m.x"
          :y="m.y + 6"
          text-anchor="middle"
          font-size="16"
          font-weight="800"
          :fill="m.stays ? 'var(--ink)' : 'var(--out)'"
        >
          {{ m.numbers[0] }}
        </text>
      </g>
    </svg>
    <p v-if="loose.length" class="t16">
      <b>In the margin, dashed: nobody said at which point. Choose it below.</b>
    </p>
    <figcaption class="t16">
      Hatched: never there,
      {{
        map.points
          .filter((p) => p.forbidden)
          .map((p) => p.name)
          .join(', ')
      }}
    </figcaption>
  </figure>
</template>

<style scoped>
.from-above svg {
  display: block;
  max-width: 100%;
  height: auto;
}
.point {
  cursor: pointer;
}
</style>
