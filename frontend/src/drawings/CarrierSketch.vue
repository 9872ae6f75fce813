<script setup lang="ts">
/**
 * A carrier seen from above: the crown wheel between its two packs, the pinion at one side of it, and which
 * way the wheel goes when a shim crosses over. Not to scale.
 */
import { computed, useId } from 'vue'

const props = defineProps<{
  nearName: string
  farName: string
  near: string
  far: string
  lash: string
  /** mm that cross to the pinion side; less than nothing goes the other way. */
  move: number | null
}>()
const id = useId()
const towards = computed(() => (props.move ?? 0) < 0)
const label = computed(
  () =>
    `From above: pack ${props.near} at the ${props.nearName}, ${props.far} at the ${props.farName}, ` +
    `backlash ${props.lash}` +
    (props.move ? `; the wheel goes ${towards.value ? 'towards' : 'away from'} the pinion` : ''),
)
</script>

<template>
  <svg viewBox="0 0 560 300" class="carrier" role="img" :aria-label="label">
    <defs>
      <pattern
        :id="`h${id}`"
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <line x1="0" y1="0" x2="0" y2="7" stroke="var(--metal)" stroke-width="1.6" />
      </pattern>
    </defs>
    <g stroke="var(--line)" stroke-width="2.6" :fill="`url(#h${id})`">
      <path d="M8 92 H56 V208 H8 Z M504 92 H552 V208 H504 Z" />
    </g>
    <g stroke="var(--line)" stroke-width="2.6" fill="var(--zinc2)">
      <path d="M84 112 H476 V188 H84 Z" />
      <path d="M104 92 H140 V208 H104 Z M420 92 H456 V208 H420 Z" />
      <path d="M196 44 H232 L252 76 V224 L232 256 H196 Z" />
      <path d="M262 8 L318 28 V72 H262 Z" transform="rotate(180 290 40) translate(0 -6)" />
      <path d="M276 74 H304 V8 H276 Z" />
    </g>
    <g fill="var(--yel)" stroke="var(--line)" stroke-width="2">
      <rect x="58" y="98" width="22" height="104" />
      <rect x="480" y="98" width="22" height="104" />
    </g>
    <path
      v-if="move"
      :d="towards ? 'M206 276 H286 M270 264 L288 276 L270 288' : 'M286 276 H206 M222 264 L204 276 L222 288'"
      fill="none"
      stroke="var(--line)"
      stroke-width="4"
    />
    <g class="words">
      <text x="8" y="84">{{ farName }}</text>
      <text x="552" y="84" text-anchor="end">{{ nearName }}</text>
      <text x="8" y="234" class="b">{{ far }}</text>
      <text x="552" y="234" text-anchor="end" class="b">{{ near }}</text>
      <text x="330" y="30">pinion</text>
      <text x="330" y="54" class="b">backlash {{ lash }}</text>
    </g>
  </svg>
</template>

<style scoped>
.carrier {
  width: 100%;
  max-width: 620px;
}
.words {
  font-size: 18px;
  fill: var(--ink);
}
.words .b {
  font-weight: 780;
  font-size: 20px;
}
</style>
