<script setup lang="ts">
import { useSession } from './stores/session'
import ReachBar from './shell/ReachBar.vue'
import WhoDialog from './shell/WhoDialog.vue'

useSession()
</script>

<template>
  <ReachBar />
  <RouterView />
  <WhoDialog />
</template>
