<script setup lang="ts">
/** What is left open: what, since which step, who, what undoes it. */
import { computed, ref } from 'vue'
import { client, got, type OpenItem, type Schemas } from '@/api/client'
import AskDialog from './AskDialog.vue'
import { useBook } from '@/stores/book'
import { useShop } from '@/stores/shop'
import { dayOf } from '@/composables/time'

const open = defineModel<boolean>({ required: true })
defineProps<{ build: string }>()
const book = useBook()
const shop = useShop()

const SORT: Record<string, string> = {
  disconnected: 'disconnected',
  tied: 'tied up',
  stand_in: 'stand-in',
  cap: 'capped',
  cover: 'cover in',
  block: 'held',
  open_port: 'open, bare',
}
const rungs = computed(() => book.frame?.rungs ?? {})
const covers = computed(() => (book.frame?.left_open ?? []).filter((i) => i.counted_out).length)
const came = ref<Record<string, string>>({})
const ask = ref<InstanceType<typeof AskDialog> | null>(null)
type Body = NonNullable<Schemas['UndoneAct']['now_on']>['body']
/**
 * A press ends it where the core says with which words; what held something up asks what carries that now.
 */
async function seen(item: OpenItem) {
  if (item.step && item.box) await book.act({ kind: 'confirmed', step: item.step, what: item.box })
}
async function undone(item: OpenItem) {
  const answer = item.holds_up
    ? await ask.value?.put({
        title: `${item.what}: what carries it now?`,
        button: '',
        carry: item.holds_up as Body,
      })
    : null
  if (item.holds_up && !answer?.carry) return
  await got(client.GET('/api/builds/{build}', { params: { path: { build: book.card?.id ?? '' } } }))
    .then((card) => (book.card = card))
    .catch(() => undefined)
  const out = Number.parseInt(came.value[item.id] ?? '', 10)
  await book.act({
    kind: 'undone',
    item: item.id,
    now_on: answer?.carry ?? null,
    out: Number.isNaN(out) ? null : out,
  })
}
</script>

<template>
  <el-drawer
    v-model="open"
    direction="ltr"
    size="560px"
    :title="book.frame?.left_open.length ? `${book.frame.left_open.length} left open` : 'Nothing left open'"
    append-to-body
  >
    <p v-if="book.refused" class="problem" role="alert">{{ book.refused }}</p>
    <p v-if="covers" class="t20">
      {{ covers }} {{ covers === 1 ? 'cover or cap is' : 'covers and caps are' }} in: count
      {{ covers === 1 ? 'it' : 'them' }} back out.
    </p>
    <ol class="ledger">
      <li v-for="(item, k) in book.frame?.left_open ?? []" :key="item.id">
        <span class="n">{{ k + 1 }}</span>
        <div>
          <p class="t20" :class="{ outside: item.live }">
            {{ item.what
            }}<small v-if="SORT[item.sort]" class="t16 mut"
              >, {{ SORT[item.sort] }}{{ item.where ? `, ${item.where}` : '' }}</small
            >
          </p>
          <p class="t16 mut">
            <template v-if="item.since"
              >since {{ item.step_number }}, {{ dayOf(item.since, shop.zone) }}, {{ item.who }}. </template
            >Blocks {{ rungs[item.blocks]
            }}<template v-if="item.open_for">, must be open for {{ rungs[item.open_for] }}</template>
          </p>
          <p class="t16">
            To undo: {{ item.undo }}<template v-if="item.note">. If it stays, {{ item.note }}</template
            ><b v-if="item.no_closer">. No step of the plan does it</b>
          </p>
        </div>
        <button v-if="item.box" type="button" class="btn small" @click="seen(item)">Seen now</button>
        <div v-else-if="item.temporary">
          <label v-if="item.counted_out && item.count > 1" class="field t16"
            ><span>of {{ item.count }} came out</span
            ><input
              v-model="came[item.id]"
              class="entry"
              inputmode="numeric"
              :name="`out-${item.id}`"
              maxlength="2"
          /></label>
          <button type="button" class="btn small" @click="undone(item)">Undone</button>
        </div>
        <RouterLink
          v-else-if="item.live"
          class="btn small"
          :to="{ name: 'support', params: { build } }"
          @click="open = false"
          >Say it</RouterLink
        >
        <RouterLink
          v-else-if="item.step"
          class="btn small"
          :to="{ name: 'step', params: { build, step: item.step } }"
          @click="open = false"
          >Go there</RouterLink
        >
      </li>
    </ol>
    <p class="t16">
      <RouterLink :to="{ name: 'changed', params: { build } }" @click="open = false"
        >What is not as it left the works</RouterLink
      >
    </p>
    <AskDialog ref="ask" />
    <p v-if="!book.frame?.left_open.length">
      Whatever is disconnected, covered, tied up or only started stands here until it is undone.
    </p>
  </el-drawer>
</template>

<style scoped>
.ledger li {
  display: grid;
  grid-template-columns: 32px 1fr auto;
  gap: 10px;
  align-items: center;
  border-top: 1px solid var(--hair);
  padding: 10px 0;
}
.n {
  font-size: 24px;
  font-weight: 800;
  color: var(--vio);
}
</style>
