<script setup lang="ts">
/**
 * Old against new before it is fitted: one feature after the other, each as read or seen, the same or not.
 */
import { computed, ref, watch } from 'vue'
import type { PartFacts } from '@/api/client'
import VerdictMark from '@/drawings/VerdictMark.vue'
import { useBook } from '@/stores/book'

const props = defineProps<{ step: string; part: PartFacts }>()
const book = useBook()
const SHAPES = { open: 'not_read', same: 'inside', differs: 'outside', will_do: 'outside' } as const
const WORDS = {
  open: 'not compared',
  same: 'same',
  differs: 'differs',
  will_do: 'differs, and will do',
} as const
const picked = ref<string | null>(null)
const own = ref('')
const old = ref('')
const fresh = ref('')
const why = ref('')
const open = computed(() => props.part.beside.filter((b) => b.todo))
const feature = computed(() => own.value.trim() || picked.value || open.value.at(0)?.feature || '')
watch(
  () => props.part.id,
  () => {
    picked.value = null
    own.value = old.value = fresh.value = why.value = ''
  },
)
/** Enter alone takes only what reads alike; whether a difference is one is said by a button. */
async function laid(same: boolean | null) {
  if (!feature.value || !old.value.trim() || !fresh.value.trim()) return
  const done = await book.handed({
    kind: 'laid beside',
    step: props.step,
    part: props.part.id,
    feature: feature.value,
    old: old.value.trim(),
    new: fresh.value.trim(),
    same,
    why: same === false && why.value.trim().length >= 3 ? why.value.trim() : null,
  })
  if (done) {
    picked.value = null
    own.value = old.value = fresh.value = why.value = ''
  }
}
function pick(name: string) {
  picked.value = name
  own.value = ''
}
</script>

<template>
  <details class="beside" :open="part.beside.some((b) => !b.todo) || !part.right">
    <summary class="b">
      Old against new: {{ part.beside.length - open.length }} of {{ part.beside.length }} laid side by side
    </summary>
    <ul>
      <li v-for="b in part.beside" :key="b.feature">
        <button type="button" :class="{ now: b.feature === feature }" @click="pick(b.feature)">
          <VerdictMark
            :verdict="SHAPES[b.state]"
            side="high"
            :accepted="b.accepted"
            :size="7"
            :word="WORDS[b.state]"
          /><span>{{ b.feature }}</span
          ><span class="t16" :class="{ hand: b.words, mut: !b.words }">{{ b.words || 'not compared' }}</span>
        </button>
      </li>
    </ul>
    <form class="line" @submit.prevent="laid(null)">
      <label class="field"
        ><span>another feature</span
        ><input
          v-model="own"
          class="entry"
          name="feature"
          maxlength="60"
          autocomplete="off"
          :placeholder="feature"
      /></label>
      <label class="field"
        ><span>the old: {{ feature }}</span
        ><input v-model="old" class="entry" name="old" maxlength="80" autocomplete="off"
      /></label>
      <label class="field"
        ><span>the new</span
        ><input v-model="fresh" class="entry" name="new" maxlength="80" autocomplete="off"
      /></label>
      <label class="field wide"
        ><span>if it differs and will do all the same: why</span
        ><input v-model="why" class="entry" name="willdo" maxlength="900" autocomplete="off"
      /></label>
      <button type="submit" class="btn small" :disabled="!old.trim() || !fresh.trim()">
        Laid side by side <kbd>Enter</kbd>
      </button>
      <button type="button" class="btn small" :disabled="!old.trim() || !fresh.trim()" @click="laid(true)">
        The same
      </button>
      <button type="button" class="btn small" :disabled="!old.trim() || !fresh.trim()" @click="laid(false)">
        It differs
      </button>
    </form>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  min-height: 44px;
  line-height: 44px;
}
li button {
  display: grid;
  grid-template-columns: 26px 190px 1fr;
  gap: 6px;
  width: 100%;
  min-height: 44px;
  align-items: center;
  text-align: left;
  border: 0;
  border-top: 1px solid var(--hair);
  background: none;
  cursor: pointer;
  padding: 0 4px;
  line-height: 1.15;
}
li button.now {
  background: var(--zinc2);
  box-shadow: inset 5px 0 0 var(--ink);
  padding-left: 10px;
}
.line {
  display: flex;
  gap: 8px;
  align-items: flex-end;
  flex-wrap: wrap;
  margin-top: 8px;
}
.line .field {
  flex: 1 1 120px;
}
.line .wide {
  flex: 1 1 100%;
}
</style>
