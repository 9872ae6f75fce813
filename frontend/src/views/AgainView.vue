<script setup lang="ts">
/** What is final and looked at again, over all vehicles: due now first, each one press from its step. */
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { client, got, type Schemas } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { useServer } from '@/composables/server'
import ShopFrame from '@/shell/ShopFrame.vue'
import { capital } from '@/words'

const view = ref<Schemas['AgainList'] | null>(null)
const router = useRouter()
const { problem, served } = useServer()
const PAPER = '/api/again.pdf'

onMounted(async () => {
  const found = await served(() => got(client.GET('/api/again')))
  if (found) view.value = found as Schemas['AgainList']
})
useKeys(() => ({
  p: () => void window.open(PAPER, '_blank'),
  Escape: () => void router.push({ name: 'shop' }),
}))
</script>

<template>
  <ShopFrame>
    <template #nav
      ><RouterLink class="btn small" to="/">Tonight <kbd>Esc</kbd></RouterLink></template
    >
    <div class="again">
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <template v-if="view">
        <h1 class="t28">{{ view.title }}</h1>
        <a v-if="view.builds.length" class="btn small" :href="PAPER" target="_blank"
          >On paper, before a trip <kbd>P</kbd></a
        >
        <section v-for="b in view.builds" :key="b.build" :aria-label="b.name">
          <h2 class="t20">{{ b.name }}</h2>
          <ul>
            <li v-for="r in b.rows" :key="r.id">
              <RouterLink :to="{ name: 'step', params: { build: b.build, step: r.step } }" class="row">
                <b>{{ r.what }}</b>
                <span
                  >{{ r.when }}<small>{{ capital(r.how) }}</small
                  ><small v-if="r.trend" class="too_close b">{{ r.trend }}</small></span
                >
                <b :class="r.due ? 'too_close' : 'mut'"
                  >{{ r.due ? 'now' : r.left || 'later'
                  }}<i v-if="r.share !== null" class="way" aria-hidden="true"
                    ><i :style="{ width: `${Math.min(r.share ?? 0, 1) * 100}%` }" /></i
                ></b>
              </RouterLink>
            </li>
          </ul>
        </section>
      </template>
    </div>
  </ShopFrame>
</template>

<style scoped>
.again {
  max-width: 1100px;
}
.btn {
  display: inline-flex;
  margin: 4px 0 12px;
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.6fr) 110px;
  gap: 4px 16px;
  align-items: center;
  min-height: 52px;
  border-top: 1px solid var(--hair);
  color: inherit;
  text-decoration: none;
}
.way {
  display: block;
  height: 10px;
  background: var(--slot);
  border-right: 3px solid var(--ink);
}
.way i {
  display: block;
  height: 6px;
  background: var(--ink);
}
small {
  display: block;
  font-size: 16px;
  color: var(--mut);
}
@media (max-width: 700px) {
  .row {
    grid-template-columns: 1fr;
  }
}
</style>
