<script setup lang="ts">
/** What is left open: what, since which step, who, what undoes it. */
import { computed } from 'vue'
import { client, got, type OpenItem } from '@/api/client'
import { useBook } from '@/stores/book'
import { useShop } from '@/stores/shop'
import { dayOf } from '@/composables/time'
import { RUNG_NAMES } from '@/composables/words'

const open = defineModel<boolean>({ required: true })
defineProps<{ build: string }>()
const book = useBook()
const shop = useShop()

const SORT: Record<string, string> = { disconnected: 'disconnected', tied: 'tied up', stand_in: 'stand-in', cap: 'capped', cover: 'cover in', block: 'held', open_port: 'open, bare' }
const covers = computed(() => (book.frame?.left_open ?? []).filter((i) => i.sort === 'cover' || i.sort === 'cap').length)
async function undone(item: OpenItem) {
  await got(client.GET('/api/builds/{build}', { params: { path: { build: book.card?.id ?? '' } } })).then((card) => (book.card = card)).catch(() => undefined)
  await book.act({ kind: 'undone', item: item.id })
}
</script>

<template>
  <el-drawer v-model="open" direction="ltr" size="560px" :title="book.frame?.left_open.length ? `${book.frame.left_open.length} left open` : 'Nothing left open'" append-to-body>
    <p v-if="book.refused" class="problem" role="alert">{{ book.refused }}</p>
    <p v-if="covers" class="t20">{{ covers }} {{ covers === 1 ? 'cover or cap is' : 'covers and caps are' }} in: count {{ covers === 1 ? 'it' : 'them' }} back out.</p>
    <ol class="ledger">
      <li v-for="(item, k) in book.frame?.left_open ?? []" :key="item.id">
        <span class="n">{{ k + 1 }}</span>
        <div>
          <p class="t20">{{ item.what }}<small v-if="SORT[item.sort]" class="t16 mut">, {{ SORT[item.sort] }}{{ item.where ? `, ${item.where}` : '' }}</small></p>
          <p class="t16 mut">since {{ item.step_number }}, {{ dayOf(item.since, shop.zone) }}, {{ item.who }}. Blocks {{ RUNG_NAMES[item.blocks] }}<template v-if="item.open_for">, must be open for {{ RUNG_NAMES[item.open_for] }}</template></p>
          <p class="t16">To undo: {{ item.undo }}<template v-if="item.note">. If it stays, {{ item.note }}</template></p>
        </div>
        <button v-if="item.kind === 'temporary'" type="button" class="btn small" @click="undone(item)">Undone</button>
        <RouterLink v-else-if="item.step" class="btn small" :to="{ name: 'step', params: { build, step: item.step } }" @click="open = false">Go there</RouterLink>
      </li>
    </ol>
    <p v-if="!book.frame?.left_open.length">Whatever is disconnected, covered, tied up or only started stands here until it is undone.</p>
  </el-drawer>
</template>

<style scoped>
.ledger li { display: grid; grid-template-columns: 32px 1fr auto; gap: 10px; align-items: center; border-top: 1px solid var(--hair); padding: 10px 0; }
.n { font-size: 24px; font-weight: 800; color: var(--vio); }
</style>
