<script setup lang="ts">
/** What the sheets of this build say now and did not, and what it found that they only suppose. */
import { computed, ref } from 'vue'
import { useServer } from '@/composables/server'
import { usePlan } from '@/stores/plan'

const plan = usePlan()
const { problem, served } = useServer()
const open = ref(false)
const desk = computed(() => plan.sheets)
const kept = ref<readonly string[]>([])

async function keep() {
  await served(async () => {
    kept.value = await plan.keepFound()
  })
}
function ask() {
  kept.value = []
  open.value = true
}
</script>

<template>
  <button v-if="desk?.words" type="button" class="btn small" @click="ask">{{ desk.words }}</button>
  <el-dialog v-model="open" title="The sheets of this build" width="900" append-to-body>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <p v-if="kept.length" class="quiet" role="status">Kept in “{{ kept.join('”, “') }}”.</p>
    <template v-if="desk">
      <p v-if="desk.apart">They no longer go together: {{ desk.apart }}.</p>
      <p v-for="g in desk.gone" :key="g">The sheet “{{ g }}” is no longer here.</p>
      <section v-if="desk.sharper.length" aria-label="Found here">
        <h2 class="t20">Found here, and only supposed in the sheets</h2>
        <ul>
          <li v-for="s in desk.sharper" :key="s.number + s.words">
            <b>{{ s.number }}</b> {{ s.words }}
          </li>
        </ul>
        <button type="button" class="btn primary" @click="keep">Keep it in my own copy</button>
      </section>
      <section v-if="desk.news.length" aria-label="New in the sheets">
        <h2 class="t20">The sheets say now, and did not when this plan was made</h2>
        <p class="t16">This build keeps its own plan. Put in by hand what you want of it.</p>
        <ul>
          <li v-for="n in desk.news" :key="n.number + n.words" :class="{ hurts: n.safety }">
            <b>{{ n.number }}</b> {{ n.words }}
          </li>
        </ul>
      </section>
    </template>
  </el-dialog>
</template>

<style scoped>
ul {
  margin: 8px 0 12px;
}
li {
  border-top: 1px solid var(--hair);
  padding: 5px 0;
}
.hurts {
  box-shadow: inset 6px 0 0 var(--yel);
  padding-left: 14px;
}
section + section {
  margin-top: 14px;
}
</style>
