<script setup lang="ts">
/**
 * Ask somebody: the facts that go along, what was tried, photos, one question; the answers are filed with
 * it.
 */
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { client, got, type Schemas } from '@/api/client'
import { useDesk, useOwnId } from '@/composables/desk'
import { useKeys } from '@/composables/keys'
import { dayOf } from '@/composables/time'
import PickOne from '@/shell/PickOne.vue'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useBook } from '@/stores/book'
import { useShop } from '@/stores/shop'

const props = defineProps<{ build: string }>()
const book = useBook()
const shop = useShop()
const route = useRoute()
const router = useRouter()
const text = (name: string) => (typeof route.query[name] === 'string' ? route.query[name] : '')
const sort = computed(() => text('sort') as Schemas['QuestionAskedAct']['sort'] | '')
const about = computed(() => text('about'))
const { view, problem } = useDesk(
  () => `${props.build}\n${sort.value}\n${about.value}`,
  () =>
    got(
      client.GET('/api/builds/{build}/ask', {
        params: { path: { build: props.build }, query: { sort: sort.value || null, about: about.value } },
      }),
    ),
)
const { id, renew } = useOwnId('q')
const ask = ref('')
const to = ref('')
const tried = ref('')
const photos = ref<string[]>([])
async function put() {
  if (!sort.value) return
  const done = await book.handed({
    kind: 'question asked',
    question: id.value,
    sort: sort.value,
    about: about.value,
    ask: ask.value.trim(),
    to: to.value.trim(),
    tried: tried.value.trim(),
    photos: photos.value,
  })
  if (!done) return
  ask.value = to.value = tried.value = ''
  photos.value = []
  renew()
}
const answering = ref<string | null>(null)
const name = ref('')
const trust = ref('knows the work')
const answer = ref('')
async function answered(question: string) {
  const done = await book.handed({
    kind: 'question answered',
    question,
    name: name.value.trim(),
    trust: trust.value as 'knows the work',
    text: answer.value.trim(),
  })
  if (!done) return
  answering.value = null
  name.value = answer.value = ''
}
useKeys(() => ({ Escape: () => (answering.value ? (answering.value = null) : router.back()) }))
</script>

<template>
  <WorkFrame :build="build" desk="questions">
    <p v-if="problem || book.refused" class="block" role="alert">{{ problem || book.refused }}</p>
    <div v-if="view" class="cols">
      <div class="main">
        <template v-if="sort">
          <h1 class="t28">Ask about: {{ view.title }}</h1>
          <h2 class="t20">What goes along</h2>
          <ul class="facts">
            <li v-for="(f, k) in view.facts" :key="k">{{ f }}</li>
          </ul>
          <form class="put" @submit.prevent="put">
            <label class="field"
              ><span>one question</span
              ><textarea v-model="ask" rows="2" class="entry short" name="ask" maxlength="1000" autofocus />
            </label>
            <label class="field"
              ><span>what was tried</span
              ><textarea v-model="tried" rows="2" class="entry short" name="tried" maxlength="1000" />
            </label>
            <label class="field"
              ><span>whom</span
              ><input v-model="to" class="entry" name="to" maxlength="120" autocomplete="off"
            /></label>
            <div v-if="view.photos.length" class="photos" role="group" aria-label="Photos that go along">
              <label v-for="p in view.photos" :key="p.photo"
                ><input v-model="photos" type="checkbox" name="photos" :value="p.photo" /><img
                  :src="`/api/photos/${p.photo}.jpg`"
                  :alt="p.what"
                /><small>{{ p.what }}</small></label
              >
            </div>
            <button type="submit" class="btn" :disabled="ask.trim().length < 3">Make the page</button>
          </form>
        </template>
        <template v-else>
          <h1 class="t28">Questions to others</h1>
          <p class="quiet">
            A question is asked from a step, a figure, a finding, an order or a part: the facts go along by
            themselves.
          </p>
        </template>
      </div>
      <aside aria-label="Questions so far">
        <h2 class="t20">{{ view.questions.length ? 'Asked so far' : 'Nothing was asked so far' }}</h2>
        <article v-for="q in view.questions" :key="q.question">
          <p>
            <b>{{ q.title }}:</b> {{ q.ask }}
          </p>
          <small>{{ q.who }}{{ q.to ? `, to ${q.to}` : '' }}, {{ dayOf(q.time, shop.zone) }}</small>
          <p v-for="a in q.answers" :key="a.entry" class="answer">
            <b>{{ a.name }}</b>, who {{ a.trust }}: {{ a.text }}
          </p>
          <div class="chips">
            <a class="btn small" :href="`/api/builds/${build}/ask/${q.question}.pdf`" target="_blank"
              >On paper</a
            ><button type="button" class="btn small" @click="answering = q.question">An answer came</button
            ><RouterLink
              v-if="q.sort === 'limit' && q.answers.length"
              class="btn small"
              :to="{ name: 'limits', params: { build } }"
              >Into the limit book</RouterLink
            >
          </div>
          <form v-if="answering === q.question" class="put" @submit.prevent="answered(q.question)">
            <label class="field"
              ><span>who answered</span
              ><input v-model="name" class="entry" name="name" maxlength="120" autocomplete="off"
            /></label>
            <PickOne
              v-model="trust"
              :options="view.trusts.map((t) => ({ value: t, label: t }))"
              label="How far trusted"
            />
            <label class="field"
              ><span>what was answered</span
              ><textarea v-model="answer" rows="3" class="entry short" name="answer" maxlength="1000" />
            </label>
            <p class="t16">It is filed here and settles nothing by itself.</p>
            <button type="submit" class="btn small" :disabled="!name.trim() || answer.trim().length < 3">
              File the answer
            </button>
          </form>
        </article>
      </aside>
    </div>
  </WorkFrame>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 380px;
  gap: 28px;
}
.facts {
  font-size: 16px;
  max-height: 240px;
  overflow: auto;
  border-top: 2px solid var(--line);
  border-bottom: 2px solid var(--line);
  margin: 4px 0 10px;
}
.facts li {
  padding: 2px 0;
}
.put {
  display: grid;
  gap: 8px;
}
.photos {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.short {
  min-height: 66px;
  height: 66px;
}
.photos input {
  width: 26px;
  height: 26px;
}
.photos label {
  width: 140px;
  cursor: pointer;
}
.photos img {
  width: 140px;
  height: 96px;
  object-fit: cover;
}
article {
  border-top: 2px solid var(--line);
  padding: 8px 0;
  display: grid;
  gap: 6px;
}
small {
  font-size: 16px;
}
.answer {
  border-left: 6px solid var(--ink);
  padding-left: 10px;
}
@media (max-width: 1179px) {
  .cols {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
