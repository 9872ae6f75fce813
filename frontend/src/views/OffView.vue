<script setup lang="ts">
/** Something came off: what, bag, fasteners, where it lies, in a few touches; the same page on a phone. */
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { v7 } from 'uuid'
import BagFigure from '@/benches/BagFigure.vue'
import FastenerPad from '@/benches/FastenerPad.vue'
import StepPhotos from '@/benches/StepPhotos.vue'
import { onlyAsks, type Schemas, sentence } from '@/api/client'
import { useFasteners } from '@/composables/fasteners'
import { pressedTwice, useKeys } from '@/composables/keys'
import { counted } from '@/words'
import { clockOf } from '@/composables/time'
import BagTray from '@/drawings/BagTray.vue'
import AskDialog from '@/shell/AskDialog.vue'
import CaptureDialog from '@/shell/CaptureDialog.vue'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useBook } from '@/stores/book'
import { useShop } from '@/stores/shop'
import { useTakeDown } from '@/stores/takedown'

const props = defineProps<{ build: string }>()
const USUAL = [
  'Fan',
  'Fan belt',
  'Hose',
  'Wire',
  'Bracket',
  'Cover',
  'Heat shield',
  'Pump',
  'Pipe',
  'Panel',
  'Alternator',
  'Strap',
]
const SIDES = ['left', 'right', 'front', 'rear', 'upper', 'lower']
const book = useBook()
const shop = useShop()
const down = useTakeDown()
const router = useRouter()
const hand = useFasteners()
const figure = ref<InstanceType<typeof BagFigure> | null>(null)
const capture = ref<InstanceType<typeof CaptureDialog> | null>(null)
const dialog = ref<InstanceType<typeof AskDialog> | null>(null)
const photos = ref<InstanceType<typeof StepPhotos> | null>(null)
const whatField = ref<HTMLInputElement | null>(null)
const removal = ref(v7())
const what = ref('')
const bag = ref(1)
const place = ref('')
const stand = ref(false)
const because = ref<Schemas['ReasonChoice'] | null>(null)
const problem = ref('')
const twin = ref(false)
const view = computed(() => down.view)
const mine = computed(() => (view.value?.photos ?? []).filter((p) => p.removal === removal.value))
const last = computed(() => [...(view.value?.removals ?? [])].reverse().slice(0, 6))
const ready = computed(() => what.value.trim().length > 0 && !book.busy)

watch(
  () => props.build,
  (id) => void down.load(id),
  { immediate: true },
)
watch(
  () => view.value?.next_bag,
  (n) => {
    if (n) bag.value = n
  },
  { immediate: true },
)
watch(
  () => view.value?.on_stand,
  (on) => {
    if (on !== undefined) stand.value = on
  },
  { immediate: true },
)
watch(what, () => {
  twin.value = false
  problem.value = ''
})

function name(part: string) {
  what.value = part
}
function side(word: string) {
  const bare = what.value.replace(/ (left|right|front|rear|upper|lower)$/, '')
  what.value = bare ? `${bare} ${word}` : ''
}
/** The fields are free for the next thing at once; what was refused comes back into them. */
function empty() {
  what.value = place.value = ''
  because.value = null
  hand.start([])
}
async function log(sure = false) {
  if (!ready.value || !(await hand.take())) return
  problem.value = ''
  let bare = '' // counted down to nothing: said, never silent
  if (hand.lines.value.length && !hand.kept.value.length) {
    bare =
      (await dialog.value?.ask({
        title: 'Nothing goes into a bag?',
        button: 'So it is',
        keys: view.value?.bag_keys,
        least: 10,
      })) ?? ''
    if (!bare) return
  }
  const lines = hand.kept.value.map((l) => ({
    ...l,
    holes: l.holes?.trim() || null,
    odd: l.odd?.trim() || null,
  }))
  const was = {
    what: what.value.trim(),
    place: place.value,
    because: because.value,
    bag: bag.value,
    removal: removal.value,
  }
  empty()
  removal.value = v7()
  if (lines.length) bag.value++
  try {
    await book.write({
      kind: 'removed',
      removal: was.removal,
      what: was.what,
      step: null,
      bag: lines.length ? was.bag : null,
      lines,
      place: was.place.trim() || null,
      on_stand: stand.value,
      because: was.because?.words ?? null,
      reason_kind: (was.because?.kind as 'safety') ?? null,
      sure,
    })
    if (bare) await book.act({ kind: 'note', step: null, text: `${was.what}, nothing in a bag: ${bare}` })
  } catch (error) {
    what.value = was.what
    place.value = was.place
    because.value = was.because
    bag.value = was.bag
    removal.value = was.removal
    hand.start(lines)
    await nextTick()
    problem.value = sentence(error)
    twin.value = onlyAsks(error)
  }
}
function press() {
  if (!pressedTwice()) void log()
}
useKeys(() => ({
  ...hand.keys(),
  ' ': () => void log(),
  PageDown: () => void log(),
  e: () => figure.value?.type(),
  p: () => photos.value?.take(),
  w: () => whatField.value?.focus(),
  k: () => capture.value?.ask(null, { removal: null, step: view.value?.at ?? null }),
  u: () => void router.push({ name: 'back', params: { build: props.build } }),
  v: () => void router.push({ name: 'ties', params: { build: props.build } }),
}))
</script>

<template>
  <WorkFrame
    :build="build"
    :step="null"
    :next="view ? [`You stand at ${view.at_words}`, `Bag ${view.next_bag} is free`] : []"
  >
    <article v-if="view" class="off">
      <header>
        <h1 class="t28">{{ what.trim() ? `${what.trim()}: off` : 'What came off?' }}</h1>
        <p class="mut">
          {{ counted(view.parts_off, 'part') }} off so far{{
            view.last_part ? `, the last one ${view.last_part}` : ''
          }}
        </p>
      </header>
      <div class="work">
        <label class="field"
          ><span>what <kbd>W</kbd></span
          ><input
            ref="whatField"
            v-model="what"
            class="entry"
            name="what"
            maxlength="120"
            autocomplete="off"
            @keydown.enter.prevent="figure?.type()"
        /></label>
        <div class="chips parts" role="group" aria-label="Parts">
          <template v-if="what.trim()"
            ><button v-for="s in SIDES" :key="s" type="button" class="btn small" @click="side(s)">
              {{ s }}</button
            ><button type="button" class="btn small" @click="name('')">another part</button></template
          ><template v-else
            ><button v-for="u in USUAL" :key="u" type="button" class="btn small" @click="name(u)">
              {{ u }}
            </button></template
          >
        </div>
        <div class="pair">
          <StepPhotos
            ref="photos"
            :photos="mine"
            cap="P"
            :what="what.trim() || 'what came off'"
            :step="view.at"
            :removal="removal"
          />
          <FastenerPad :hand="hand" :recent="view.recent" @type="figure?.type()" />
        </div>
        <div class="chips" role="group" aria-label="Why it had to be off first">
          <span class="t16 mut">off first, because</span
          ><button
            v-for="r in view.reasons"
            :key="r.words"
            type="button"
            class="btn small"
            :aria-pressed="because?.words === r.words"
            @click="because = because?.words === r.words ? null : r"
          >
            {{ r.words }}</button
          ><button type="button" class="btn small" :aria-pressed="stand" @click="stand = !stand">
            {{ stand ? 'unit on the stand' : 'on the vehicle' }}
          </button>
        </div>
        <h2 class="t20">Tray</h2>
        <BagTray :bags="view.bags" :current="bag" :next="view.next_bag" @choose="bag = $event" />
        <h2 class="t20 spread">
          Off last
          <RouterLink class="btn small" :to="{ name: 'ties', params: { build } }"
            >Ties<kbd>V</kbd></RouterLink
          >
        </h2>
        <ol class="last">
          <li v-for="r in last" :key="r.id">
            <time class="mut">{{ clockOf(r.time, shop.zone) }}</time><span
              ><b>{{ r.number }} {{ r.what }}</b
              >{{ r.bags.length ? `, bag ${r.bags.map((b) => b.bag).join(', ')}` : ''
              }}{{ r.place ? `, ${r.place}` : '' }}</span
            ><span class="mut">{{ r.who }}</span>
          </li>
        </ol>
      </div>
      <aside class="side">
        <div class="figure">
          <BagFigure
            ref="figure"
            v-model:bag="bag"
            v-model:place="place"
            :hand="hand"
            :places="view.places"
          />
        </div>
        <div class="acts">
          <p v-if="problem || book.refused" class="problem" role="alert">{{ problem || book.refused }}</p>
          <button v-if="twin" type="button" class="btn" @click="log(true)">
            It is another one, write it
          </button>
          <button type="button" class="btn primary" :disabled="!ready" @click="press">
            {{ hand.pieces.value || hand.text.value.trim() ? 'In the bag' : 'It is off'
            }}<kbd>Space or right pedal</kbd>
          </button>
          <div class="two">
            <button type="button" class="btn second" @click="capture?.ask(null, { step: view.at })">
              Keep as found<kbd>K</kbd></button
            ><RouterLink class="btn second" :to="{ name: 'back', params: { build } }"
              >The order back<kbd>U</kbd></RouterLink
            >
          </div>
        </div>
      </aside>
      <CaptureDialog ref="capture" />
      <AskDialog ref="dialog" />
    </article>
    <p v-else-if="down.problem" class="block" role="alert">{{ down.problem }}</p>
  </WorkFrame>
</template>

<style scoped>
.off {
  display: grid;
  grid-template: 'head side' auto 'work side' 1fr / minmax(0, 1fr) 308px;
  column-gap: 32px;
}
header {
  grid-area: head;
}
.work {
  grid-area: work;
  display: grid;
  gap: 10px;
  align-content: start;
  min-width: 0;
}
.side {
  grid-area: side;
  display: flex;
  flex-direction: column;
}
.figure {
  min-height: 340px;
}
.acts {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.two .btn {
  font-size: 18px;
}
.pair {
  display: grid;
  grid-template-columns: minmax(0, 300fr) minmax(0, 320fr);
  gap: 16px;
  align-items: start;
}
.chips {
  align-items: center;
}
.parts {
  min-height: 94px;
  align-content: start;
}
.last li {
  display: grid;
  grid-template-columns: 62px 1fr auto;
  gap: 8px;
  border-top: 1px solid var(--hair);
  padding: 6px 0;
}
@media (max-width: 959px) {
  .off {
    display: flex;
    flex-direction: column;
  }
  .work {
    order: 2;
  }
  .side {
    order: 1;
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 16px;
    border-bottom: 3px solid var(--line);
    padding-bottom: 12px;
    margin-bottom: 12px;
  }
  .figure {
    min-height: 0;
  }
}
@media (max-width: 600px) {
  .side {
    display: contents;
  }
  .figure {
    order: 3;
    padding-top: 10px;
  }
  .pair {
    grid-template-columns: 1fr;
  }
  .acts {
    display: contents;
  }
  .problem {
    order: 4;
  }
  .two {
    order: 5;
    margin-top: 10px;
  }
  .two .btn {
    min-height: 56px;
  }
  .acts kbd {
    display: none;
  }
  .acts .primary {
    order: 7;
    min-height: 84px;
    position: sticky;
    bottom: 0;
    z-index: 3;
    margin-top: 10px;
    outline: 8px solid var(--now);
  }
  .parts {
    flex-wrap: nowrap;
    overflow-x: auto;
    min-height: 50px;
  }
  .parts .btn {
    flex: none;
  }
  .pair > :first-child {
    order: 2;
  }
}
</style>
