<script setup lang="ts">
/** What the choice gives: the shims to put in, each pair, or the moves as one hand does them. */
import type { Choices } from '@/composables/choices'
import WorkingLines from '@/shell/WorkingLines.vue'
import CarrierFigure from './CarrierFigure.vue'
import PackFigure from './PackFigure.vue'

defineProps<{ choices: Choices }>()
</script>

<template>
  <PackFigure v-if="choices.pack && choices.row" :pack="choices.pack" :row="choices.row" />
  <CarrierFigure v-else-if="choices.carrier" :carrier="choices.carrier" />
  <section v-else-if="choices.match" aria-label="What it gives">
    <ol class="given">
      <li v-for="pair in choices.given" :key="pair.name">
        <b>{{ pair.name }}</b> {{ pair.option?.name }}:
        <span :class="pair.option?.judgement.verdict">{{ pair.option?.judgement.words }}</span>
      </li>
    </ol>
    <WorkingLines :lines="choices.match.working" />
  </section>
  <section v-else-if="choices.swaps" aria-label="As one hand does it">
    <h2 class="t20">As one hand does it</h2>
    <ol class="hand">
      <li v-for="(move, k) in choices.table?.moves ?? []" :key="k">{{ move }}</li>
    </ol>
  </section>
</template>

<style scoped>
.hand {
  list-style: decimal inside;
}
li {
  border-top: 1px solid var(--hair);
  padding: 4px 0;
  line-height: 1.2;
}
</style>
