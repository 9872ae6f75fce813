<script setup lang="ts">
/** The record: what the log comes to, for the shop, and for the owner without the notes. */
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { client, type Schemas } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { useView } from '@/composables/view'
import WorkFrame from '@/shell/WorkFrame.vue'

const props = defineProps<{ build: string }>()
const router = useRouter()
const owner = ref(false)
const { view, problem } = useView<Schemas['RecordView']>(
  () =>
    client.GET('/api/builds/{build}/record', {
      params: { path: { build: props.build }, query: { owner: owner.value } },
    }),
  () => props.build,
  owner,
)
const paper = computed(() => `/api/builds/${props.build}/record.pdf?owner=${owner.value}`)
useKeys(() => ({
  p: () => void window.open(paper.value, '_blank'),
  w: () => (owner.value = !owner.value),
  Escape: () => void router.push({ name: 'settle', params: { build: props.build } }),
}))
</script>

<template>
  <WorkFrame :build="build" :step="null" desk="record">
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <template v-if="view">
      <h1 class="t28">{{ view.title }}</h1>
      <p class="mut">{{ view.about }}</p>
      <div class="two">
        <button type="button" class="btn small" :aria-pressed="owner" @click="owner = !owner">
          For the owner, without notes <kbd>W</kbd></button
        ><RouterLink class="btn small" :to="{ name: 'last', params: { build } }"
          >Before this, on this vehicle</RouterLink
        ><a class="btn small" :href="paper" target="_blank">On paper <kbd>P</kbd></a>
      </div>
      <section v-for="s in view.sections" :key="s.title" :aria-label="s.title">
        <h2 class="t20">
          {{ s.title }}<span>{{ s.rows.length || '' }}</span>
        </h2>
        <p v-if="!s.rows.length" class="mut">{{ s.none }}</p>
        <ul>
          <li v-for="(r, k) in s.rows" :key="k">
            <span
              ><b>{{ r.what }}</b
              ><small>{{ r.small }}</small></span
            ><span>{{ r.right }}</span>
          </li>
        </ul>
      </section>
      <p class="t16 mut">The vehicle maker's manual, local codes and licensed practice go first.</p>
    </template>
  </WorkFrame>
</template>

<style scoped>
h2 {
  display: flex;
  justify-content: space-between;
  border-top: 2px solid var(--ink);
  margin-top: 14px;
  padding-top: 4px;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 20px;
  border-bottom: 1px solid var(--hair);
  padding: 4px 0;
}
li > span:last-child {
  text-align: right;
  white-space: nowrap;
}
small {
  display: block;
  font-size: 16px;
  color: var(--mut);
}
.two {
  display: flex;
  gap: 8px;
  margin: 8px 0;
}
</style>
