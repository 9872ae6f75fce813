<script setup lang="ts">
/** Loose, adjust, lock: the group, where it may stand, and the order of its locks. */
import { computed } from 'vue'
import type { TightenBenchView } from '@/api/client'
import GroupLine from '@/drawings/GroupLine.vue'
import StandLanes from '@/drawings/StandLanes.vue'
import { capital } from '@/words'
import { useBook } from '@/stores/book'

type Group = NonNullable<TightenBenchView['group']>
const props = defineProps<{ group: Group; step: string }>()
const book = useBook()
const build = computed(() => book.card?.id ?? '')
</script>

<template>
  <section class="group" aria-label="Loose, adjust, lock">
    <GroupLine :group="group" />
    <ul class="sr">
      <li v-for="m in group.members" :key="m.letter">{{ m.letter }}: {{ m.name }}, {{ m.words }}</li>
    </ul>
    <StandLanes v-if="group.lanes.length" :group="group" />
    <p v-if="group.go" class="t20 b">{{ capital(group.go) }}.</p>
    <ol class="cells">
      <li v-for="(c, k) in group.cells" :key="k" :class="c.state.replace(' ', '-')">
        <RouterLink v-if="c.step" :to="{ name: 'step', params: { build, step: c.step } }"
          ><b>{{ c.name }}</b
          ><span>{{ c.words }}</span></RouterLink
        ><template v-else
          ><b>{{ c.name }}</b
          ><span>{{ c.words }}</span></template
        >
      </li>
    </ol>
    <p class="t16">{{ group.shut }}.</p>
    <div v-if="group.last && group.cells.at(-1)?.state === 'now'" class="quiet condition">
      <p><b>Last:</b> {{ group.last }}</p>
      <button
        type="button"
        class="btn small"
        @click="book.act({ kind: 'confirmed', step: props.step, what: group.last ?? '' })"
      >
        It is so
      </button>
    </div>
  </section>
</template>

<style scoped>
.group {
  display: grid;
  gap: 8px;
}
.cells {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
}
.cells li {
  flex: 1 1 92px;
  border: 1px solid var(--hair);
  border-bottom: 8px solid var(--hair);
  padding: 4px 8px;
  font-size: 16px;
  line-height: 1.15;
  min-height: 60px;
}
.cells b,
.cells span {
  display: block;
}
.cells a {
  color: inherit;
  display: block;
}
.cells .done {
  border-bottom-color: var(--ink);
}
.cells .now {
  border: 3px solid var(--ink);
  border-bottom: 8px solid var(--yel);
  padding: 2px 6px;
}
.cells .early {
  border-bottom-color: var(--out);
}
</style>
