<script setup lang="ts">
/** A line drawing of one term: a small field of the face, and what the eye meets on it. */
import { computed } from 'vue'

const props = defineProps<{ code: string; name: string }>()
/** In a field of 120 by 80: `l` lines, `f` filled spots, `d` dashed lines. */
const DRAWN: Record<string, { l?: string; f?: string; d?: string }> = {
  scratch: { l: 'M14 52 L104 30' },
  score: { l: 'M8 20H112 M8 27H108 M12 34H112 M8 42H100 M8 49H112 M16 57H112 M8 64H104' },
  dent: {
    l: 'M30 34a9 7 0 1 0 .1 0 M70 24a7 5 0 1 0 .1 0 M88 50a10 8 0 1 0 .1 0 M52 56a6 5 0 1 0 .1 0',
    d: 'M30 29a14 12 0 1 0 .1 0 M88 45a15 13 0 1 0 .1 0 M70 20a12 9 0 1 0 .1 0',
  },
  pit: {
    f:
      'M24 30h4v4h-4z M40 46h6v5h-6z M60 26h5v6h-5z M72 52h4v4h-4z M86 38h6v4h-6z M98 ' +
      '56h4v5h-4z M30 60h3v4h-3z M52 38h3v3h-3z M80 24h3v3h-3z',
  },
  spall: {
    f: 'M28 30 L44 24 L60 30 L74 26 L90 36 L84 52 L66 58 L50 52 L34 56 L24 44 Z',
    l: 'M36 36 L50 40 M60 38 L76 44 M46 48 L62 48',
  },
  fret: {
    f:
      'M20 36h3v3h-3z M28 44h3v3h-3z M38 34h4v3h-4z M50 46h3v3h-3z M60 36h3v3h-3z M70 ' +
      '42h4v4h-4z M82 34h3v3h-3z M92 46h3v3h-3z M100 38h3v3h-3z',
    d: 'M10 30H110 M10 54H110',
  },
  scuff: {
    l:
      'M16 24 Q40 20 60 26 T108 22 M12 34 Q36 40 62 34 T110 36 M14 46 Q44 40 64 48 T108 46 ' +
      'M18 58 Q50 62 70 56 T106 60',
    d: 'M20 29H100 M20 52H100',
  },
  smear: {
    l: 'M10 26H110 M10 56H110 M60 41a9 9 0 1 0 .1 0',
    f: 'M22 34 Q52 28 62 40 Q74 52 104 44 L104 50 Q70 58 58 46 Q48 36 22 40 Z',
  },
  embedded: {
    f:
      'M26 32l5 -4 4 5 -5 4z M48 52l6 -3 2 6 -6 2z M70 30l4 -5 5 4 -4 5z M90 50l6 -4 3 6 -6 ' +
      '3z M58 40l3 -3 3 3 -3 3z',
    l: 'M20 38H36 M42 58H60 M66 36H84 M84 58H102',
  },
  tint: {
    d: 'M12 24H108 M12 34H108 M12 44H108 M12 54H108',
    l: 'M34 18 Q46 40 34 64 M60 18 Q74 40 60 64 M86 18 Q100 40 86 64',
  },
  corrosion: {
    l:
      'M22 28 q6 -8 14 -2 q10 4 4 12 q-10 8 -18 0 q-6 -6 0 -10z M66 40 q8 -10 20 -4 q12 6 6 ' +
      '16 q-14 10 -24 2 q-8 -8 -2 -14z',
    f: 'M30 32h4v4h-4z M76 46h5v5h-5z M86 42h4v4h-4z M52 24h3v3h-3z',
  },
  erosion: { l: 'M92 24a14 14 0 1 0 .1 0 M8 30 Q40 34 60 44 Q76 52 80 44 M8 40 Q36 44 56 56 Q76 64 84 52' },
  crack: { l: 'M12 20 L28 30 L40 28 L52 42 L66 40 L78 54 L96 56 L108 66' },
  chipped: { l: 'M10 66 V22 H62 L70 32 L80 28 L86 40 L98 42 L110 54 V66 Z', d: 'M62 22 H110 V54' },
  step: { l: 'M8 30 H62 V46 H112 M8 66 H112' },
  polished: {
    l: 'M34 24 H86 Q94 40 86 58 H34 Q26 40 34 24Z',
    d: 'M10 26H28 M10 40H24 M10 54H28 M92 26H110 M96 40H110 M92 54H110',
  },
  glazed: { l: 'M24 20 L96 62 M36 20 L104 60', d: 'M20 60 L60 22 M40 62 L84 22 M60 62 L104 24' },
  brittle: {
    l: 'M10 40 Q60 10 110 40 M10 58 Q60 28 110 58 M34 28 L38 42 M54 22 L56 38 M74 24 L72 38 M90 32 L86 46',
  },
  swollen: { l: 'M18 58 Q14 20 60 18 Q106 20 102 58', d: 'M34 58 Q34 34 60 34 Q86 34 86 58 M10 58H110' },
  discoloured: {
    d: 'M12 22H108 M12 30H108 M12 38H108 M12 46H108 M12 54H108 M12 62H108',
    l: 'M40 18 Q64 40 44 66 M84 18 Q68 44 88 66',
  },
  bent: { l: 'M10 50 Q60 20 110 50 M10 60 Q60 30 110 60', d: 'M6 66H114' },
  stripped: {
    l: 'M20 20 L34 27 L20 34 L34 41 L20 48 M86 20 L100 27 L86 34 L100 41 L86 48 M60 14V70',
    d: 'M20 50V66 M100 50V66',
  },
  strange: { l: 'M8 40 H46 M74 40 H112 M46 34 L54 46 L60 34 L66 46 L74 34', d: 'M38 26 H82 V56 H38 Z' },
  elsewhere: { l: 'M18 64 V30 H102 V64 M24 30 L30 18 L36 30 M44 30 L48 20 L54 30', d: 'M40 64 V44 H80 V64' },
  chips: {
    f:
      'M22 50l10 -16 3 3 -8 15z M44 56l14 -10 2 4 -12 9z M70 34l4 14 -4 1 -4 -13z M86 52l12 ' +
      '-4 1 4 -11 4z M56 28l9 3 -2 4 -8 -3z',
  },
  paste: { l: 'M18 60 Q30 30 48 40 Q60 46 68 34 Q80 20 96 38 Q108 54 100 62 Z' },
  milky: { l: 'M26 20 H94 L88 66 H32 Z M30 38 Q46 30 60 38 T92 38', d: 'M34 48H86 M36 56H84' },
  play: { l: 'M40 20V64 M80 20V64 M46 42H74 M52 36L46 42L52 48 M68 36L74 42L68 48' },
  notchy: { l: 'M60 14a28 28 0 1 0 .1 0 M60 14V22 M88 42H80 M60 70V62 M32 42H40', f: 'M78 20l6 2 -3 5z' },
  rough: { l: 'M8 42 L18 30 L26 54 L36 28 L46 56 L56 30 L66 54 L76 32 L86 52 L96 34 L112 42' },
  dull: {
    l: 'M20 30 L42 52 M16 36 L28 22 L36 30 L24 44 Z M64 42 q8 -8 0 -18',
    d: 'M78 48 q14 -14 0 -32 M92 54 q22 -22 0 -44',
  },
  noise: { l: 'M16 30H34L54 16V64L34 50H16Z M66 30q10 10 0 20', d: 'M78 22q20 18 0 36 M92 14q32 26 0 52' },
  glow: {
    l: 'M10 32H110 M10 52H110',
    d: 'M30 22V8 M60 22V8 M90 22V8 M30 62V76 M60 62V76 M90 62V76',
    f: 'M36 38h48v8h-48z',
  },
  smell: {
    l: 'M20 64H100 M36 56 q-10 -10 0 -20 t0 -20 M60 56 q-10 -10 0 -20 t0 -20 M84 56 q-10 -10 0 -20 t0 -20',
  },
}
const drawn = computed(() => (props.code in DRAWN ? DRAWN[props.code] : {}))
</script>

<template>
  <svg
    viewBox="0 0 120 80"
    width="120"
    height="80"
    role="img"
    :aria-label="`drawing: ${name}`"
    class="sketch"
  >
    <rect x="1" y="1" width="118" height="78" class="field" />
    <path v-if="drawn.d" :d="drawn.d" class="d" />
    <path v-if="drawn.l" :d="drawn.l" class="l" />
    <path v-if="drawn.f" :d="drawn.f" class="f" />
  </svg>
</template>

<style scoped>
.sketch {
  flex: none;
}
.field {
  fill: var(--zinc2);
  stroke: var(--hair);
}
.l {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.2;
  stroke-linejoin: round;
}
.d {
  fill: none;
  stroke: var(--metal);
  stroke-width: 1.6;
  stroke-dasharray: 5 4;
}
.f {
  fill: var(--ink);
  stroke: none;
}
</style>
