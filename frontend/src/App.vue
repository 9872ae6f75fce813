<script setup lang="ts">
import { useSession } from './stores/session'
import WhoDialog from './shell/WhoDialog.vue'

useSession()
</script>

<template>
  <RouterView />
  <WhoDialog />
</template>
