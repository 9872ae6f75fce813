<script setup lang="ts">
/**
 * What is known of the thing as it goes back: its photo, when and how it came off, where it lies; else what
 * waits for this step.
 */
import { computed } from 'vue'
import type { CheckBenchView } from '@/api/client'
import { dayOf } from '@/composables/time'
import PinPhoto from '@/drawings/PinPhoto.vue'
import { useBook } from '@/stores/book'
import { useShop } from '@/stores/shop'

const props = defineProps<{ bench: CheckBenchView }>()
const book = useBook()
const shop = useShop()
const photo = computed(() => props.bench.taken.flatMap((t) => t.photos).at(-1) ?? null)
const told = computed(() => props.bench.taken.slice(0, photo.value ? 2 : 4))
</script>

<template>
  <div class="taken" tabindex="0" role="region" aria-label="As it came off">
    <PinPhoto v-if="photo" :photo="photo" :pins="photo.pins" still />
    <section v-for="t in told" :key="t.number + t.what">
      <h2 class="t20">{{ t.number }} {{ t.what }}</h2>
      <p class="t16 mut">
        off {{ dayOf(t.time, shop.zone) }}, {{ t.who
        }}<template v-if="t.place">; it lies {{ t.place }}</template>
      </p>
      <ul>
        <li v-for="line in [...t.told, ...t.bags].slice(0, photo ? 3 : 6)" :key="line">{{ line }}</li>
      </ul>
    </section>
    <p v-if="bench.taken.length > told.length" class="t16 mut">
      and {{ bench.taken.length - told.length }} more that came off
    </p>
    <section v-if="!bench.taken.length && bench.followers.length">
      <h2 class="t20">What waits for it</h2>
      <ul>
        <li v-for="f in bench.followers.slice(0, 5)" :key="f.step">
          <RouterLink :to="{ name: 'step', params: { build: book.card?.id ?? '', step: f.step } }"
            >{{ f.number }} {{ f.title }}</RouterLink
          ><span class="mut t16"> {{ f.because }}</span>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.taken {
  display: grid;
  gap: 10px;
  align-content: start;
  max-height: 308px;
  overflow-y: auto;
  scrollbar-width: thin;
}
.taken :deep(.picture) {
  max-height: 180px;
  cursor: default;
}
li {
  border-top: 1px solid var(--hair);
  padding: 5px 0;
  line-height: 1.25;
  overflow-wrap: anywhere;
}
li .mut {
  display: block;
}
</style>
