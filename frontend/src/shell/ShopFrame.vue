<script setup lang="ts">
/** The frame of a page of the shop: its name, what one can go to, the yellow band, the page. */
import { onMounted } from 'vue'
import MarkLogo from '@/shell/MarkLogo.vue'
import { useShop } from '@/stores/shop'

const shop = useShop()
onMounted(() => {
  if (!shop.view) void shop.load()
})
</script>

<template>
  <div class="shopframe">
    <section class="top" aria-label="Hollet">
      <MarkLogo /><span class="place">{{ shop.view?.name }}</span>
      <nav aria-label="Shop"><slot name="nav" /></nav>
    </section>
    <main><slot /></main>
  </div>
</template>

<style scoped>
.shopframe {
  min-height: 100dvh;
  display: grid;
  grid-template-rows: auto 1fr;
}
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 20px;
  min-height: 76px;
  padding: 4px 20px;
}
nav {
  margin-left: auto;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
main {
  background: var(--now);
  border-top: 8px solid var(--yel);
  padding: 12px 20px;
}
</style>
