<script setup lang="ts">
/** The box: spares, parts of donors, what was left over; what each fits, how it is, for which job it went. */
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { client, got, type Schemas } from '@/api/client'
import { priceOf, useOwnId } from '@/composables/desk'
import { useKeys } from '@/composables/keys'
import { useServer } from '@/composables/server'
import PickOne from '@/shell/PickOne.vue'
import ShopFrame from '@/shell/ShopFrame.vue'
import { useCalendar } from '@/stores/calendar'
import { useShop } from '@/stores/shop'

const calendar = useCalendar()
const shop = useShop()
const router = useRouter()
const view = ref<Schemas['BoxView'] | null>(null)
const { problem, served } = useServer()
const { id: own, renew } = useOwnId('s')
const open = ref<string | null>(null)
const BLANK = { name: '', count: '1', fits: '', condition: '', where: '', origin: 'spare', build: '' }
const draft = ref({ ...BLANK })
const field = ref<HTMLInputElement | null>(null)
const move = ref({ count: '1', money: '' })

async function load() {
  const found = await served(() => got(client.GET('/api/box')))
  if (found) view.value = found
}
onMounted(load)
async function keep() {
  const d = draft.value
  const said = await calendar.say({
    kind: 'spare kept',
    spare: own.value,
    name: d.name.trim(),
    count: Number(d.count),
    fits: d.fits.trim(),
    condition: d.condition.trim(),
    where: d.where.trim(),
    origin: d.origin as 'spare',
    build: d.build || null,
  })
  if (!said) return
  draft.value = { ...BLANK }
  renew()
  await load()
}
async function moved(spare: Schemas['Spare'], now: string) {
  const said = await calendar.say({
    kind: 'spare moved',
    spare: spare.spare,
    count: Number(move.value.count),
    now: now as 'sold',
    money: now === 'sold' ? priceOf(move.value.money) : null,
  })
  if (!said) return
  move.value = { count: '1', money: '' }
  open.value = null
  await load()
}
function take(left: Schemas['LeftOver']) {
  draft.value = {
    ...BLANK,
    name: left.name,
    count: String(left.count),
    condition: 'new, not used',
    origin: 'left over',
    build: left.build,
  }
  field.value?.focus()
}
const OUT = ['sold', 'given away', 'thrown away', 'back in the box'] as const
useKeys(() => ({
  n: () => field.value?.focus(),
  Escape: () => (open.value ? (open.value = null) : router.push('/')),
}))
</script>

<template>
  <ShopFrame>
    <template #nav
      ><RouterLink class="btn small" to="/">Tonight <kbd>Esc</kbd></RouterLink></template
    >
    <p v-if="problem || calendar.problem" class="block" role="alert">{{ problem || calendar.problem }}</p>
    <div v-if="view" class="cols">
      <section aria-label="In the box">
        <h1 class="t28">
          {{
            view.spares.some((s) => s.left)
              ? `In the box: ${view.spares.filter((s) => s.left).length}`
              : 'Nothing is in the box'
          }}
        </h1>
        <ul>
          <li v-for="s in view.spares" :key="s.spare" :class="{ mut: !s.left }">
            <button type="button" class="row" @click="open = open === s.spare ? null : s.spare">
              <b class="t20">{{ s.name }}</b><small>{{ s.words }}</small>
            </button>
            <ul v-if="s.uses.length" class="uses">
              <li v-for="(u, k) in s.uses" :key="k">
                {{ u.count }} {{ u.now }}{{ u.build_name ? `, ${u.build_name}` : ''
                }}{{ u.money !== null ? `, ${shop.money(u.money.toFixed(2))}` : '' }}
              </li>
            </ul>
            <form v-if="open === s.spare" class="moves" @submit.prevent>
              <label class="field"
                ><span>how many</span
                ><input v-model="move.count" class="entry" name="movecount" inputmode="numeric" /></label
              ><label class="field"
                ><span>for how much, if sold</span
                ><input v-model="move.money" class="entry" name="movemoney" inputmode="decimal"
              /></label>
              <div class="chips">
                <button v-for="o in OUT" :key="o" type="button" class="btn small" @click="moved(s, o)">
                  {{ o }}
                </button>
              </div>
              <p class="t16">For a job it is taken at the parts desk, at the part that needs it.</p>
            </form>
          </li>
        </ul>
        <template v-if="view.left_over.length">
          <h2 class="t20">Left over, and not in the box yet</h2>
          <ul>
            <li v-for="l in view.left_over" :key="l.build + l.name">
              <button type="button" class="row" @click="take(l)">
                <b>{{ l.count }} × {{ l.name }}</b
                ><small>{{ l.build_name }}: {{ l.why }}</small>
              </button>
            </li>
          </ul>
        </template>
      </section>
      <form class="keep" aria-label="Put something in" @submit.prevent="keep">
        <h2 class="t20">Put something in <kbd>N</kbd></h2>
        <label class="field"
          ><span>what</span
          ><input
            ref="field"
            v-model="draft.name"
            class="entry"
            name="name"
            maxlength="120"
            autocomplete="off"
        /></label>
        <label class="field"
          ><span>how many</span
          ><input v-model="draft.count" class="entry" name="count" inputmode="numeric" autocomplete="off"
        /></label>
        <label class="field"
          ><span>its condition, as you see it</span
          ><input v-model="draft.condition" class="entry" name="condition" maxlength="120" autocomplete="off"
        /></label>
        <label class="field"
          ><span>what it fits</span
          ><input v-model="draft.fits" class="entry" name="fits" maxlength="200" autocomplete="off"
        /></label>
        <label class="field"
          ><span>where it lies</span
          ><input v-model="draft.where" class="entry" name="where" maxlength="120" autocomplete="off"
        /></label>
        <PickOne
          v-model="draft.origin"
          :options="view.origins.map((o) => ({ value: o, label: o }))"
          label="Where it came from"
        />
        <label class="field"
          ><span>from which build</span
          ><select v-model="draft.build" class="entry" name="build">
            <option value="">none</option>
            <option v-for="(name, b) in view.builds" :key="b" :value="b">{{ name }}</option>
          </select></label
        >
        <button type="submit" class="btn" :disabled="!draft.name.trim() || !draft.condition.trim()">
          Into the box
        </button>
      </form>
    </div>
  </ShopFrame>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 380px;
  gap: 28px;
}
.row {
  border: 0;
  border-top: 1px solid var(--hair);
  background: none;
  width: 100%;
  min-height: 48px;
  text-align: left;
  cursor: pointer;
  padding: 4px 0;
}
small {
  display: block;
  font-size: 16px;
}
.uses {
  font-size: 16px;
  padding-left: 14px;
}
.moves,
.keep {
  display: grid;
  gap: 8px;
  align-content: start;
}
.moves {
  border: 3px solid var(--ink);
  padding: 8px 12px;
}
@media (max-width: 1000px) {
  .cols {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
