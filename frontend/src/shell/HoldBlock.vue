<script setup lang="ts">
/**
 * What holds this step: dangers first, in words, one touch from where they are cleared; then what it waits
 * for.
 */
import { computed } from 'vue'
import type { BenchView } from '@/api/client'
import { capital } from '@/words'
import { useBook } from '@/stores/book'

const props = defineProps<{ bench: BenchView; build: string }>()
const book = useBook()
const live = computed(() => (props.bench.base.settled ? [] : props.bench.base.waits.filter((w) => w.danger)))
const order = computed(() =>
  props.bench.base.settled ? [] : props.bench.base.waits.filter((w) => !w.danger),
)
const load = computed(() =>
  props.bench.base.settled ? undefined : props.bench.base.obstacles.find((o) => o.by_load),
)
</script>

<template>
  <section v-if="bench.base.dangers.length" class="danger" role="alert" aria-label="Live danger">
    <p v-for="d in bench.base.dangers" :key="d.box">
      <b>{{ capital(d.words) }}</b>
      {{ ' '
      }}<button
        type="button"
        class="btn small"
        @click="book.act({ kind: 'confirmed', step: bench.base.step, what: d.box })"
      >
        Seen now: {{ d.box.replace(': seen now', '') }}
      </button>
    </p>
  </section>
  <section v-if="live.length || load" class="danger" aria-label="Held">
    <p v-for="w in live" :key="w.step">
      <b>{{ capital(w.live) }}</b>
      {{ ' '
      }}<RouterLink class="btn small" :to="{ name: 'step', params: { build, step: w.step } }"
        >See to it: {{ w.number }}</RouterLink
      >
    </p>
    <p v-if="load">
      <b>{{ capital(load.words) }}</b>
      {{ ' '
      }}<RouterLink class="btn small" :to="{ name: 'support', params: { build } }"
        >Say what carries it</RouterLink
      >
    </p>
  </section>
  <div v-if="order.length" class="quiet waits">
    <p v-for="w in order" :key="w.step">
      <RouterLink :to="{ name: 'step', params: { build, step: w.step } }" class="b"
        >Waits for {{ w.number }} {{ w.title }}</RouterLink
      >: {{ w.because }}
    </p>
  </div>
</template>

<style scoped>
.danger {
  border-left: 12px solid var(--out);
  padding: 4px 0 4px 12px;
  display: grid;
  gap: 6px;
}
.danger p {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
}
.danger b {
  color: var(--out);
  font-weight: 700;
  font-size: 20px;
  line-height: 1.2;
}
.danger .btn {
  flex: none;
  max-width: 46%;
}
.waits {
  margin: 4px 0 8px;
}
.waits a {
  display: inline-block;
  min-height: 32px;
  line-height: 32px;
}
</style>
