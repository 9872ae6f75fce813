<script setup lang="ts">
/** The tray whole, the register of what was kept as found, the photos and clips, and all that is off. */
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import StepPhotos from '@/benches/StepPhotos.vue'
import { useKeys } from '@/composables/keys'
import { dayOf } from '@/composables/time'
import BagTray from '@/drawings/BagTray.vue'
import PickOne from '@/shell/PickOne.vue'
import ClipRow from '@/shell/ClipRow.vue'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useShop } from '@/stores/shop'
import { useTakeDown } from '@/stores/takedown'

const props = defineProps<{ build: string }>()
const down = useTakeDown()
const shop = useShop()
const route = useRoute()
const shown = ref('bags')
const chosen = ref<number | null>(null)
const view = computed(() => down.view)
const bag = computed(() => view.value?.bags.find((b) => b.bag === chosen.value) ?? null)
const counts = computed(() => ({
  bags: view.value?.bags.length ?? 0,
  off: view.value?.removals.length ?? 0,
  kept: view.value?.captures.length ?? 0,
  photos: view.value?.photos.length ?? 0,
  clips: view.value?.clips.length ?? 0,
}))
const LABELS = { bags: 'Labels of these', ahead: 'Labels ahead', wires: 'Labels of wires' }
const WORD: Record<string, string> = {
  missing: 'not kept yet',
  'let go': 'gone without',
  kept: 'kept, to be compared at refit',
  same: 'as found',
  differs: 'not as found',
}
const tabs = computed(() =>
  [
    { value: 'bags', label: `Bags ${counts.value.bags}` },
    { value: 'off', label: `Off ${counts.value.off}` },
    { value: 'kept', label: `Kept as found ${counts.value.kept}` },
    { value: 'photos', label: `Photos ${counts.value.photos}` },
    { value: 'clips', label: `Clips ${counts.value.clips}` },
  ].map((tab, k) => ({ ...tab, kbd: String(k + 1) })),
)
const clipped = computed(() =>
  (view.value?.clips ?? []).map((c) => {
    const off = view.value?.removals.find((r) => r.id === c.removal)
    return off ? { ...c, what: `${off.what}: ${c.what}` } : c
  }),
)
const owner = (b: { owner: string }) => view.value?.removals.find((r) => r.id === b.owner)
const photoAt = computed(() => {
  const asked = route.query.photo
  return view.value?.photos.filter((p) => !asked || p.photo === asked) ?? []
})

watch(
  () => props.build,
  (id) => void down.load(id),
  { immediate: true },
)
watch(
  () => route.query.bag,
  (n) => {
    if (n) {
      shown.value = 'bags'
      chosen.value = Number(n)
    }
  },
  { immediate: true },
)
watch(
  () => route.query.photo,
  (p) => {
    if (p) shown.value = 'photos'
  },
  { immediate: true },
)
useKeys(() => Object.fromEntries(tabs.value.map((tab) => [tab.kbd, () => (shown.value = tab.value)])))
</script>

<template>
  <WorkFrame :build="build" :step="null" desk="bags">
    <div v-if="view" class="bags">
      <div class="head">
        <h1 class="t28">{{ view.bags_used }} bags hold {{ view.pieces_left }} pieces</h1>
        <RouterLink class="btn small" :to="{ name: 'off', params: { build } }"
          >It came off <kbd>Q</kbd></RouterLink
        ><a
          v-for="(name, which) in LABELS"
          :key="which"
          class="btn small"
          target="_blank"
          :href="`/api/builds/${build}/labels.pdf?which=${which}`"
          >{{ name }}</a
        ><RouterLink class="btn small" :to="{ name: 'back', params: { build } }">The order back</RouterLink>
      </div>
      <PickOne v-model="shown" class="filter" :options="tabs" label="What to show" />
      <template v-if="shown === 'bags'">
        <BagTray
          :bags="view.bags"
          :current="chosen ?? undefined"
          :next="view.next_bag"
          all
          @choose="chosen = $event"
        />
        <section v-if="bag" class="one" :aria-label="`Bag ${bag.bag}`">
          <p class="number">{{ bag.bag }}</p>
          <div>
            <h2 class="t24">{{ bag.number }} {{ bag.what }}</h2>
            <ul>
              <li v-for="l in bag.lines" :key="`${l.size}${l.length}${l.odd}`">
                {{ l.words }}{{ l.holes ? `, holes ${l.holes}` : '' }}{{ l.odd ? `, ${l.odd}` : '' }}
              </li>
            </ul>
            <p class="mut">
              {{ bag.place ? `The part lies ${bag.place}. ` : ''
              }}{{
                owner(bag)?.back_words
                  ? `Goes back at ${owner(bag)?.back_words}`
                  : 'No step puts it back yet: take the order back over'
              }}
            </p>
          </div>
        </section>
        <p v-else-if="view.bags.length" class="mut">Touch a bag to see what is in it.</p>
        <p v-else>No bag is in use yet.</p>
      </template>
      <table v-else-if="shown === 'off'">
        <thead>
          <tr>
            <th>off</th>
            <th>what</th>
            <th>bag</th>
            <th>lies</th>
            <th>goes back at</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in view.removals" :key="r.id" :class="{ mut: r.is_back }">
            <td>{{ dayOf(r.time, shop.zone) }} {{ r.who }}</td>
            <td>
              <b>{{ r.number }} {{ r.what }}</b>
            </td>
            <td>{{ r.bags.map((b) => b.bag).join(', ') }}</td>
            <td>{{ r.place }}</td>
            <td>{{ r.is_back ? 'is back: ' : '' }}{{ r.back_words || 'no step yet' }}</td>
          </tr>
        </tbody>
      </table>
      <table v-else-if="shown === 'kept'">
        <thead>
          <tr>
            <th>what</th>
            <th>kind</th>
            <th>as found</th>
            <th>now</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in view.captures" :key="c.id">
            <td>
              <b>{{ c.number }} {{ c.what }}</b>
            </td>
            <td>{{ c.kind_words }}</td>
            <td>
              {{ c.words }} <RouterLink v-if="c.photo" :to="{ query: { photo: c.photo } }">photo</RouterLink>
            </td>
            <td :class="{ outside: c.differs, in: c.agrees }">
              {{ WORD[c.state] }}{{ c.compared ? `: ${c.compared}` : '' }}
            </td>
          </tr>
        </tbody>
      </table>
      <div v-else-if="shown === 'clips'">
        <ClipRow :clips="clipped" />
        <p v-if="!clipped.length">No clip yet. Each step has a key for one: C, while it is looked at.</p>
      </div>
      <div v-else class="album">
        <StepPhotos
          v-for="p in photoAt"
          :key="p.photo"
          :photos="[p]"
          cap="P"
          :what="p.what"
          :step="p.step"
          :removal="p.removal"
        />
        <p v-if="!view.photos.length">No photo yet. Each step has a button for one.</p>
      </div>
    </div>
    <p v-else-if="down.problem" class="block" role="alert">{{ down.problem }}</p>
  </WorkFrame>
</template>

<style scoped>
.bags {
  display: grid;
  gap: 12px;
}
.head {
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
}
.head h1 {
  flex: 1;
}
.filter {
  border-bottom: 2px solid var(--line);
}
.one {
  display: flex;
  gap: 24px;
  align-items: flex-start;
  border-top: 3px solid var(--line);
  padding-top: 12px;
}
.number {
  font-size: 132px;
  font-weight: 850;
  letter-spacing: -0.03em;
  line-height: 0.9;
}
.album {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  gap: 16px;
}
@media (max-width: 700px) {
  th:nth-child(1),
  td:nth-child(1) {
    display: table-cell;
  }
  table {
    font-size: 16px;
  }
  .number {
    font-size: 60px;
  }
}
</style>
