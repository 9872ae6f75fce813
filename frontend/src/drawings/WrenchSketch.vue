<script setup lang="ts">
/** Wrench with its adapter and the two dimensions that count. */
defineProps<{ adapter: string; angle: number; grip: number; sum: string; mark: string }>()
</script>

<template>
  <figure>
    <svg
      viewBox="0 0 300 84"
      width="300"
      height="84"
      role="img"
      :aria-label="`Adapter ${adapter} at ${angle} degrees, ${grip} mm to the grip`"
    >
      <g stroke="var(--line)" stroke-width="2" fill="var(--now)">
        <path d="M58 16 H282 a10 10 0 0 1 0 20 H58 Z" />
        <path d="M236 16 v20 M244 16 v20 M252 16 v20" />
        <path
          v-if="adapter"
          :transform="`rotate(${-angle} 50 26)`"
          d="M46 15 L22 16 a10 10 0 1 0 0 20 L46 37 Z"
        />
        <circle cx="50" cy="26" r="14" />
      </g>
      <g stroke="var(--ink)" stroke-width="1.1" fill="none">
        <path d="M50 42 v28 M258 42 v28 M50 62 H258" />
        <path v-if="adapter && angle === 0" d="M14 40 v30 M14 62 H50" />
      </g>
      <g class="t16" fill="var(--ink)" font-weight="700">
        <text v-if="adapter" x="32" y="82" text-anchor="middle">{{ adapter }}</text>
        <text x="154" y="56" text-anchor="middle">{{ grip }} to the grip</text>
      </g>
    </svg>
    <figcaption v-if="sum" class="t16">
      {{ sum }}<span class="b">{{ mark ? `, ${mark}` : '' }}</span>
    </figcaption>
  </figure>
</template>
