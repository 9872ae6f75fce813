<script setup lang="ts">
/**
 * Evenings milled into one block of metal, one under the other: slugs of work in their slots, recesses where
 * somebody is there, galleries in which something runs by itself, drillings by which a part comes in.
 */
import { computed } from 'vue'
import { blockOf, type EveningIn, type GhostIn, ghostsOf, type RunIn } from './evenings'

const props = withDefaults(
  defineProps<{
    evenings: readonly (EveningIn & { day: string; start: string; hours: string })[]
    runs: readonly RunIn[]
    chosen?: string | null
    ghosts?: readonly GhostIn[]
    width?: number
    perHour?: number
  }>(),
  { chosen: null, ghosts: () => [], width: 784, perHour: 150 },
)
const emit = defineEmits<{ choose: [slug: string] }>()
const block = computed(() => blockOf(props.evenings, props.runs, props.width, props.perHour))
/** Where what moves stood before. */
const stood = computed(() => ghostsOf(block.value, props.ghosts))
const BEGIN = 120
const id = `metal${Math.random().toString(36).slice(2)}`
const cut = (x: number, y: number, w: number, h: number) => {
  const c = Math.min(8, w / 3, h / 3)
  return `M${x} ${y} H${x + w - c} L${x + w} ${y + c} V${y + h - c} L${x + w - c} ${y + h} H${x} Z`
}
</script>

<template>
  <svg
    :viewBox="`0 0 ${width + BEGIN} ${block.height}`"
    class="block-of-evenings"
    role="group"
    aria-label="The evenings"
  >
    <defs>
      <pattern :id="id" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <path d="M0 0 H9" stroke="var(--metal)" stroke-width="1.5" />
      </pattern>
    </defs>
    <rect :x="BEGIN" y="0" :width="width" :height="block.height" :fill="`url(#${id})`" />
    <path :d="`M${BEGIN} 0 H${BEGIN + width}`" stroke="var(--ink)" stroke-width="2" />
    <g :transform="`translate(${BEGIN} 0)`">
      <template v-for="slot in block.slots" :key="slot.key">
        <g v-for="(r, k) in slot.recess" :key="`r${k}`">
          <rect :x="r.x" :y="r.y" :width="r.w" :height="r.h + 4" fill="var(--slot)" />
          <path
            :d="`M${r.x} ${r.y + r.h} V${r.y} H${r.x + r.w} V${r.y + r.h}`"
            fill="none"
            stroke="var(--ink)"
            stroke-width="3"
            :stroke-dasharray="r.perhaps ? '7 5' : undefined"
          />
        </g>
        <rect :x="slot.x" :y="slot.y" :width="slot.w" :height="slot.h" fill="var(--slot)" />
        <path
          :d="[slot.x, slot.x + slot.w].map((x) => `M${x} ${slot.y - 3} V${slot.y + slot.h + 3}`).join(' ')"
          stroke="var(--ink)"
          stroke-width="4"
        />
        <path
          :d="`M${slot.x} ${slot.y} H${slot.x + slot.w} M${slot.x} ${slot.y + slot.h} H${slot.x + slot.w}`"
          stroke="var(--line)"
          stroke-width="1.4"
        />
        <g v-for="(d, k) in slot.drillings" :key="`d${k}`">
          <rect
            :x="slot.x + slot.w"
            :y="d.y"
            :width="width - slot.x - slot.w"
            :height="d.h"
            fill="var(--slot)"
            stroke="var(--line)"
            stroke-width="1.2"
            :stroke-dasharray="d.open ? '6 5' : undefined"
          />
          <path
            :d="`M${slot.x + slot.w + 34} ${d.y + 12} H${slot.x + slot.w + 12} m8 -6 l-9 6 l9 6`"
            fill="none"
            stroke="var(--ink)"
            stroke-width="4"
          />
          <text :x="slot.x + slot.w + 44" :y="d.y + 17" class="t16" font-weight="600">{{ d.words }}</text>
        </g>
        <g v-if="slot.gap">
          <rect :x="slot.x + 12" :y="slot.y - 27" width="170" height="20" fill="var(--now)" />
          <text :x="slot.x + 20" :y="slot.y - 12" class="t16" fill="var(--mut)">{{ slot.gap }}</text>
        </g>
        <text
          v-for="(r, k) in slot.recess"
          :key="`w${k}`"
          :x="slot.x + slot.w - 8"
          :y="r.y + 15 - k * 17"
          text-anchor="end"
          class="t16 plate"
        >
          {{ r.words }}
        </text>
      </template>
      <g v-for="(g, k) in block.galleries" :key="`g${k}`">
        <path :d="g.path" fill="none" stroke="var(--line)" stroke-width="14" stroke-linejoin="round" />
        <path :d="g.path" fill="none" stroke="var(--slot)" stroke-width="11" stroke-linejoin="round" />
        <path v-if="g.chain" :d="g.path" fill="none" stroke="var(--ink)" stroke-width="4.5" />
        <text :x="g.x" :y="g.y + 5" class="t16 plate">{{ g.words }}</text>
      </g>
      <template v-for="slot in block.slots" :key="`s${slot.key}`">
        <g
          v-for="s in slot.slugs"
          :key="s.slug.id"
          role="button"
          tabindex="0"
          :aria-label="`${s.slug.name}, ${s.slug.words}`"
          @click="emit('choose', s.slug.id)"
          @keydown.enter="emit('choose', s.slug.id)"
        >
          <path
            :d="cut(s.x, s.y, s.w, s.h)"
            :fill="s.slug.now ? 'var(--yel)' : 'var(--zinc2)'"
            :stroke="s.slug.chain || s.slug.now ? 'var(--ink)' : 'var(--line)'"
            :stroke-width="s.slug.id === chosen ? 5 : s.slug.chain ? 3.6 : 1.8"
          />
          <text
            v-if="s.name"
            :x="s.x + 7"
            :y="s.y + (s.h > 50 ? 24 : 20)"
            :class="s.slug.chain ? 'strong' : 'name'"
            :fill="s.slug.now ? 'var(--onyel)' : 'var(--ink)'"
          >
            {{ s.name }}
          </text>
          <text
            v-if="s.words"
            :x="s.x + 7"
            :y="s.y + s.h - 6"
            class="t16"
            :fill="s.slug.now ? 'var(--onyel)' : 'var(--ink)'"
          >
            {{ s.words }}
          </text>
        </g>
      </template>
      <rect
        v-for="(g, k) in stood"
        :key="`o${k}`"
        :x="g.x"
        :y="g.y"
        :width="g.w"
        :height="g.h"
        fill="none"
        stroke="var(--ink)"
        stroke-width="2"
        stroke-dasharray="7 5"
        pointer-events="none"
      />
    </g>
    <g v-for="(e, k) in evenings" :key="e.key">
      <text x="0" :y="block.slots[k].y + 22" class="day">{{ e.day }}</text>
      <text x="0" :y="block.slots[k].y + 42" class="t16" fill="var(--mut)">{{ e.start }}, {{ e.hours }}</text>
    </g>
  </svg>
</template>

<style scoped>
.block-of-evenings {
  width: 100%;
  display: block;
}
text {
  fill: var(--ink);
}
.name {
  font-size: 18px;
  font-weight: 740;
}
.strong {
  font-size: 18px;
  font-weight: 820;
}
.day {
  font-size: 20px;
  font-weight: 800;
}
.plate {
  paint-order: stroke;
  stroke: var(--now);
  stroke-width: 6px;
  font-weight: 600;
}
g[role='button'] {
  cursor: pointer;
}
</style>
