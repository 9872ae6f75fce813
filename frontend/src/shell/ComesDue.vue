<script setup lang="ts">
/** What comes due in the shop and on its builds: late ones first. */
import { computed } from 'vue'
import DueMark from '@/drawings/DueMark.vue'
import { useCalendar } from '@/stores/calendar'

const calendar = useCalendar()
const SHOWN = 4
const rows = computed(() => (calendar.tonight?.due ?? []).slice(0, SHOWN))
const more = computed(() => Math.max(0, (calendar.tonight?.due.length ?? 0) - SHOWN))
const place = (build: string | null) => (build ? { name: 'parts', params: { build } } : { name: 'tools' })
</script>

<template>
  <section v-if="rows.length" aria-label="Comes due" class="due">
    <h2 class="t20">Comes due</h2>
    <ul>
      <li v-for="r in rows" :key="`${r.build}${r.due.id}`">
        <RouterLink :to="place(r.build)">
          <DueMark :late="r.due.late" :soon="r.due.soon" /><b>{{ r.due.what }}</b
          ><span>{{ r.due.does }}</span
          ><b class="when" :class="{ outside: r.due.late, too_close: r.due.soon }">{{ r.due.words }}</b>
        </RouterLink>
      </li>
    </ul>
    <p class="mut t16">
      <template v-if="more">and {{ more }} more, </template
      ><RouterLink to="/again" class="plain">what is looked at again</RouterLink>
    </p>
  </section>
</template>

<style scoped>
.due {
  margin-bottom: 10px;
}
.plain {
  display: inline;
  color: inherit;
  text-decoration: underline;
}
a:not(.plain) {
  display: grid;
  grid-template-columns: 24px 160px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  min-height: 34px;
  text-decoration: none;
}
a > b:first-of-type,
a > span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
@media (max-width: 700px) {
  a:not(.plain) {
    grid-template-columns: 24px minmax(0, 1fr) auto;
  }
  a > span {
    display: none;
  }
}
</style>
