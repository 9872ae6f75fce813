<script setup lang="ts">
/** Hollet cannot be reached: since when this screen is not fresh, and that what is written waits here. */
import { useElementSize } from '@vueuse/core'
import { ref, watchEffect } from 'vue'
import { clockOf } from '@/composables/time'
import { useReach } from '@/stores/reach'
import { useShop } from '@/stores/shop'

const reach = useReach()
const shop = useShop()
const bar = ref<HTMLElement | null>(null)
const { height } = useElementSize(bar, undefined, { box: 'border-box' })
// what fills the screen leaves room for it
watchEffect(() =>
  document.documentElement.style.setProperty('--reach', `${reach.since ? height.value : 0}px`),
)
</script>

<template>
  <div v-if="reach.since" ref="bar" class="reach" role="alert">
    <b>Hollet cannot be reached. This is as it stood at {{ clockOf(reach.since, shop.zone) }}</b>
    <span>What you write waits on this device, without a verdict, until it is back.</span>
  </div>
</template>

<style scoped>
.reach {
  position: sticky;
  top: 0;
  z-index: 30;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  padding: 6px 20px;
  background: var(--out);
  color: var(--now);
}
</style>
