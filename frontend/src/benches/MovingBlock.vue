<script setup lang="ts">
/** A unit on its way: where it hangs, what is left to go, and each voice since the last move. */
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import { PAD, type MovingHand, type Way } from '@/composables/moving'
import { clockOf } from '@/composables/time'
import FitSide from '@/drawings/FitSide.vue'
import VerdictMark from '@/drawings/VerdictMark.vue'
import { useShop } from '@/stores/shop'

const props = defineProps<{ moving: Schemas['MovingFacts']; hand: MovingHand; live: boolean }>()
const shop = useShop()
const saying = ref<string | null>(null) // whose gap is being told
const gap = ref('')
const between = ref('')
const widens = ref<Way | null>(null)
async function tell() {
  if (!saying.value) return
  const own = { gap: gap.value.trim(), between: between.value.trim(), widens: widens.value }
  const told = await props.hand.clear(saying.value, own)
  if (told !== undefined) saying.value = null
}
function ask(who: string) {
  ;[saying.value, gap.value, between.value, widens.value] = [who, '', '', null]
}
</script>

<template>
  <section class="moving" aria-label="On its way">
    <p v-if="moving.half" class="half t20">
      <b>Half in, on purpose: {{ moving.half.why }}.</b> Held by {{ moving.half.held }}, {{ moving.half.who }}
      {{ clockOf(moving.half.since, shop.zone) }}. Before it moves on, each looks again.
    </p>
    <div class="drawn">
      <FitSide :to-go="moving.to_go" :last="moving.last" :last-by="moving.last_by" what="unit" />
      <ul class="togo" aria-label="Still to go">
        <li v-for="t in moving.to_go" :key="t.way">
          {{ t.way }} <b>{{ t.there ? 'there' : t.known ? `${t.left} ${t.unit}` : '?' }}</b>
        </li>
      </ul>
    </div>
    <ul class="voices">
      <li v-for="v in moving.voices" :key="v.who" :class="{ now: v.who === moving.next_voice }">
        <b class="who">{{ v.who }}</b><span>{{ v.point }}</span
        ><span class="nowrap"><VerdictMark :verdict="v.verdict" side="low" :size="8" /> {{ v.said }}</span
        ><time>{{ v.at ? clockOf(v.at, shop.zone) : '' }}</time
        ><span v-if="live" class="two"
          ><button type="button" class="btn small" @click="hand.clear(v.who)">Clear</button
          ><button type="button" class="btn small" @click="ask(v.who)">Gap</button></span
        >
      </li>
    </ul>
    <form v-if="saying" class="tell" @submit.prevent="tell">
      <b class="t20">{{ saying }}: how wide is the gap?</b>
      <label class="field"
        ><span>in mm, by eye</span
        ><input v-model="gap" class="entry" name="gap" inputmode="decimal" autocomplete="off" /></label
      ><label class="field"
        ><span>between what</span
        ><input v-model="between" class="entry" name="gap-where" maxlength="120" autocomplete="off"
      /></label>
      <div class="two" role="group" aria-label="Wider by">
        wider by<button
          v-for="[way] in PAD"
          :key="way"
          type="button"
          class="btn small"
          :aria-pressed="widens === way"
          @click="widens = widens === way ? null : way"
        >
          {{ way }}
        </button>
      </div>
      <button type="submit" class="btn small" :disabled="!gap.trim()">Said</button>
    </form>
  </section>
</template>

<style scoped>
.moving {
  display: grid;
  gap: 4px;
}
.half {
  border: 3px solid var(--vio);
  padding: 8px 12px;
}
.drawn {
  position: relative;
}
.togo {
  position: absolute;
  right: 0;
  top: 0;
  font-size: 18px;
  background: var(--now);
}
.togo b {
  font-size: 26px;
  font-weight: 800;
}
.togo li {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 12px;
}
.voices li {
  display: grid;
  grid-template-columns: 52px minmax(0, 1fr) 136px 54px auto;
  gap: 8px;
  align-items: center;
  border-top: 1px solid var(--hair);
  min-height: 49px;
}
.voices .now {
  background: var(--yel);
  color: var(--onyel);
}
.who {
  background: var(--ink);
  color: var(--now);
  text-align: center;
  padding: 4px;
}
.tell {
  display: grid;
  gap: 8px;
  border: 3px solid var(--ink);
  padding: 10px;
}
.two {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
@media (max-width: 959px) {
  .voices li {
    grid-template-columns: 52px minmax(0, 1fr) auto;
  }
}
</style>
