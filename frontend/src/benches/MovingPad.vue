<script setup lang="ts">
/** The moves at the right hand: nearest gap, keys as they lie, the next voice, it touches, secure now. */
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { type KeyMap, useKeys } from '@/composables/keys'
import { PAD, type MovingHand, type Way } from '@/composables/moving'
import VerdictMark from '@/drawings/VerdictMark.vue'

const props = defineProps<{ moving: Schemas['MovingFacts']; hand: MovingHand }>()
const emit = defineEmits<{ secure: []; anew: [] }>()
const touching = ref(false)
const where = ref('')
const halving = ref(false)
const [why, heldBy] = [ref(''), ref('')]
const primary = computed(() => {
  const now = props.moving
  if (now.next_voice) return `${now.next_voice} says clear`
  return now.at_once ? `Again: ${now.last} ${now.last_by}, all clear` : ''
})
async function touched(who: string) {
  const told = await props.hand.touched(who, where.value.trim())
  if (told !== undefined) [touching.value, where.value] = [false, '']
}
async function halfIn() {
  const told = await props.hand.half(why.value.trim(), heldBy.value.trim())
  if (told !== undefined) [halving.value, why.value, heldBy.value] = [false, '', '']
}
const ARROWS: Record<string, Way> = { ArrowUp: 'up', ArrowDown: 'down', ArrowLeft: 'out', ArrowRight: 'in' }
useKeys(
  (): KeyMap => ({
    ...Object.fromEntries(Object.entries(ARROWS).map(([k, way]) => [k, () => props.hand.moved(way)])),
    ...Object.fromEntries([...'0123456789.'].map((k) => [k, () => props.hand.digit(k)])),
    n: () => props.hand.moved('nose up'),
    t: () => props.hand.moved('nose down'),
    x: () => (touching.value = !touching.value),
    f: () => (halving.value = !halving.value),
    h: () => emit('secure'),
    ' ': props.hand.next,
    PageDown: props.hand.next,
  }),
  () => !!primary.value,
)
</script>

<template>
  <section class="movepad" aria-label="Moves">
    <template v-if="moving.gap">
      <p class="t16">Nearest: {{ moving.gap.who }}, by eye ±{{ moving.gap.U }}</p>
      <p class="gap">
        <b>{{ moving.gap.mm }}</b>mm<span
          >{{ moving.gap.between || 'a gap' }}<br /><VerdictMark
            :verdict="moving.gap.verdict"
            side="low"
            :size="7"
          />
          {{ moving.gap.words }}, at least {{ moving.gap.least ?? 'not given'
          }}{{ moving.more_gaps ? `, and ${moving.more_gaps} more` : '' }}</span
        >
      </p>
    </template>
    <p class="t16 b">
      {{ hand.typed.value ? `${hand.typed.value}, now the arrow` : `Moves: ${moving.shut || 'open'}` }}
    </p>
    <div class="pad">
      <button
        v-for="[way, key] in PAD"
        :key="way"
        type="button"
        class="btn small"
        :class="{ metal: !moving.open.includes(way) }"
        @click="hand.moved(way)"
      >
        {{ way }} {{ way.startsWith('nose') ? hand.typed.value || 1 : hand.amount.value }}<kbd>{{ key }}</kbd>
      </button>
    </div>
    <p v-if="hand.problem.value" class="problem" role="alert">{{ hand.problem.value }}</p>
    <button
      v-if="hand.asks.value && hand.held.value"
      type="button"
      class="btn small"
      @click="hand.moved(hand.held.value, { sure: true })"
    >
      It was moved all the same
    </button>
    <button v-if="primary" type="button" class="btn voice" @click="hand.next()">
      {{ primary }}<kbd>Space or right pedal</kbd>
    </button>
    <div class="two">
      <button type="button" class="btn" @click="touching = !touching">It touches<kbd>X</kbd></button
      ><button type="button" class="secure" @click="emit('secure')">Secure now<kbd>H</kbd></button>
    </div>
    <div v-if="touching" class="touch" role="group" aria-label="It touches">
      <label class="field"
        ><span>where does it touch?</span
        ><input v-model="where" class="entry" name="touch-where" maxlength="120" autocomplete="off" /></label
      ><button
        v-for="v in moving.voices"
        :key="v.who"
        type="button"
        class="btn small"
        @click="touched(v.who)"
      >
        {{ v.who }} says so
      </button>
    </div>
    <form v-if="halving" class="touch" aria-label="Half in, on purpose" @submit.prevent="halfIn">
      <label class="field"
        ><span>what for?</span
        ><input v-model="why" class="entry" name="half-why" maxlength="160" autocomplete="off" /></label
      ><label class="field"
        ><span>what holds it while hands go in?</span
        ><input v-model="heldBy" class="entry" name="half-held" maxlength="160" autocomplete="off" /></label
      ><button type="submit" class="btn small">It is held</button>
    </form>
    <button v-if="!moving.half" type="button" class="btn small" @click="halving = !halving">
      Half in, on purpose<kbd>F</kbd>
    </button>
    <button type="button" class="btn small" @click="emit('anew')">Other watchers, or begin anew</button>
  </section>
</template>

<style scoped>
.movepad {
  display: grid;
  gap: 6px;
}
.gap {
  display: flex;
  align-items: end;
  gap: 6px;
  font-size: 18px;
}
.gap b {
  font-size: 84px;
  font-weight: 850;
  line-height: 0.9;
  letter-spacing: -0.03em;
}
.gap span {
  font-size: 16px;
}
.pad {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
}
.pad .btn {
  min-height: 54px;
  padding: 2px 4px 2px 14px;
  font-size: 15px;
  flex-direction: column;
  gap: 0;
}
.metal {
  background: repeating-linear-gradient(-45deg, var(--metal) 0 1.5px, transparent 1.5px 6.3px) left / 12px
    100% no-repeat var(--now);
  color: var(--mut);
}
.voice {
  background: var(--yel);
  color: var(--onyel);
  border: 3px solid var(--yeledge);
  font-size: 26px;
  font-weight: 800;
  min-height: 92px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.secure {
  background: var(--ink);
  color: var(--now);
  border: 0;
  border-radius: 3px;
  font: inherit;
  font-size: 18px;
  font-weight: 680;
  cursor: pointer;
  display: grid;
  justify-items: center;
  gap: 4px;
  padding: 8px;
}
.touch {
  display: grid;
  gap: 6px;
  border: 3px solid var(--ink);
  padding: 8px;
}
</style>
