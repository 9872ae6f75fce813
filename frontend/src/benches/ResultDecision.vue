<script setup lang="ts">
/**
 * One result in words: verdict, margins, what would settle it, what each source says, the working; and what
 * to do about it.
 */
import AskLink from '@/shell/AskLink.vue'
import { useBook } from '@/stores/book'
import { computed } from 'vue'
import type { MeasureBenchView } from '@/api/client'
import VerdictMark from '@/drawings/VerdictMark.vue'
import WorkingLines from '@/shell/WorkingLines.vue'

type Result = MeasureBenchView['results'][number]
const props = defineProps<{
  result: Result
  deciding: boolean
  never: boolean
  keys: boolean
  rework: string | null
  replace: string | null
}>()
const emit = defineEmits<{ decide: [choice: 'measure_again' | 'rework' | 'replace']; accept: []; ask: [] }>()
const book = useBook()
const judgement = computed(() => props.result.judgement)
</script>

<template>
  <section class="decision" :aria-label="result.name">
    <h2 class="t20">{{ result.name }}</h2>
    <p class="value" :class="judgement.verdict">
      <VerdictMark
        :verdict="judgement.verdict"
        :side="judgement.side"
        :accepted="result.conceded"
        :size="11"
      />
      {{ judgement.value_text }} <span class="t18">±{{ judgement.U_text }} {{ judgement.unit }}</span>
    </p>
    <p class="b" :class="judgement.verdict">{{ result.refusal ?? judgement.words }}</p>
    <p v-if="judgement.margins" class="t16">{{ judgement.margins }}.</p>
    <p v-for="w in result.warnings" :key="w" class="too_close b">{{ w }}.</p>
    <p v-if="judgement.needs">
      It needs {{ judgement.needs }} or better.
      <b>{{
        result.settled_by.length
          ? `${result.settled_by.join(' or ')} would settle it.`
          : 'No tool of the shop would.'
      }}</b>
    </p>
    <ul v-if="result.sources.length" class="sources" aria-label="What each source says">
      <li v-for="s in result.sources" :key="s.source">
        <VerdictMark :verdict="s.verdict" :side="s.side" :size="7" /><span
          ><b>{{ s.source }}</b> {{ s.asks }}: {{ s.words }}{{ s.in_force ? ', this one counts' : '' }}</span
        >
      </li>
      <li v-if="!result.limit.settled" class="too_close">They disagree, and nobody has chosen.</li>
    </ul>
    <AskLink
      v-if="book.bench && result.judged"
      sort="result"
      :about="`${book.bench.base.step}/${result.id}`"
    />
    <p v-if="result.concession">{{ result.concession }}</p>
    <p v-if="result.lapsed" class="too_close">{{ result.lapsed }}</p>
    <p v-if="result.disposition">Decided: {{ result.disposition.replace('_', ' ') }}</p>
    <p v-if="result.turned" class="too_close b">{{ result.turned }}.</p>
    <button v-if="deciding && !result.conceded && !keys" type="button" class="btn small" @click="emit('ask')">
      What now? By digits <kbd>A</kbd>
    </button>
    <div
      v-if="deciding && !result.conceded"
      class="choices"
      role="group"
      :aria-label="`${result.name}: what now?`"
    >
      <button type="button" class="btn row" @click="emit('decide', 'measure_again')">
        <kbd v-if="keys">1</kbd
        ><span
          >Again<small>{{
            result.settled_by[0] ? `with ${result.settled_by[0]}` : 'more repeats'
          }}</small></span
        >
      </button>
      <button type="button" class="btn row" @click="emit('decide', 'rework')">
        <kbd v-if="keys">2</kbd
        ><span
          >Rework<small v-if="rework">{{ rework }}</small></span
        >
      </button>
      <button type="button" class="btn row" @click="emit('decide', 'replace')">
        <kbd v-if="keys">3</kbd
        ><span
          >Replace<small v-if="replace">{{ replace }}</small></span
        >
      </button>
      <button v-if="!never" type="button" class="btn row" @click="emit('accept')">
        <kbd v-if="keys">4</kbd><span>Accept in writing</span>
      </button>
      <p v-else class="t16 outside">Lifting gear is never accepted outside.</p>
    </div>
    <WorkingLines :lines="judgement.working" />
  </section>
</template>

<style scoped>
.decision {
  display: grid;
  gap: 4px;
}
.value {
  font-size: 28px;
  font-weight: 780;
  line-height: 1.15;
}
.t18 {
  font-size: 18px;
  font-weight: 560;
  color: var(--ink);
}
.sources li {
  display: flex;
  gap: 6px;
  font-size: 16px;
  border-top: 1px solid var(--hair);
  padding: 3px 0;
  align-items: flex-start;
}
.choices {
  display: grid;
  gap: 6px;
  margin-top: 6px;
}
.choices .btn {
  justify-content: flex-start;
  flex-wrap: nowrap;
  align-items: center;
  padding: 4px 8px;
  min-height: 48px;
}
.choices span {
  text-align: left;
  line-height: 1.15;
  min-width: 0;
  overflow-wrap: anywhere;
}
.choices small {
  display: block;
  font-size: 16px;
  font-weight: 460;
}
</style>
