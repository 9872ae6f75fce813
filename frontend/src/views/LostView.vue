<script setup lang="ts">
import MarkLogo from '@/shell/MarkLogo.vue'
</script>

<template>
  <main style="padding: 20px">
    <MarkLogo />
    <h1 class="t28">There is nothing at this address</h1>
    <RouterLink to="/" class="btn" style="width: 240px; margin-top: 14px">To the Shop</RouterLink>
  </main>
</template>
