/** The plan desk of the open build: what it shows, what a change would do, and taking it. */
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { v7 } from 'uuid'
import {
  client,
  type Difference,
  got,
  type LimitBook,
  type PlanAct,
  type PlanView,
  type Schemas,
  sentence,
} from '@/api/client'
import { useBook } from './book'
import { useSession } from './session'

export type Edited = Schemas['Edited']

export const usePlan = defineStore('plan', () => {
  const view = ref<PlanView | null>(null)
  const figures = ref<LimitBook | null>(null)
  const build = ref('')
  const problem = ref('')
  const turned = ref<readonly string[]>([])
  const kept = ref('')

  async function load(id: string) {
    if (build.value !== id) {
      view.value = figures.value = null
      turned.value = []
      kept.value = ''
    }
    build.value = id
    const path = { build: id }
    try {
      const loaded = (await got<unknown>(
        client.GET('/api/builds/{build}/plan', { params: { path } }),
      )) as PlanView
      if (build.value === id) view.value = loaded
      problem.value = ''
    } catch (error) {
      problem.value = sentence(error)
    }
  }
  async function loadFigures(id: string) {
    build.value = id
    try {
      figures.value = (await got<unknown>(
        client.GET('/api/builds/{build}/limits', { params: { path: { build: id } } }),
      )) as LimitBook
      problem.value = ''
    } catch (error) {
      problem.value = sentence(error)
    }
  }
  /** What the acts would change; throws a Refusal. */
  async function look(acts: PlanAct[]): Promise<Difference> {
    const who = await useSession().whoIsIt()
    const call = client.POST('/api/builds/{build}/plan/difference', {
      params: { path: { build: build.value } },
      body: { who, acts },
    })
    return (await got<unknown>(call)) as Difference
  }
  /** Take the acts on the plan as it was `seen`; throws a Refusal, and then nothing was written. */
  async function take(
    acts: PlanAct[],
    reason: string,
    seen = view.value?.version ?? 0,
    id = v7(),
  ): Promise<Edited> {
    const who = await useSession().whoIsIt()
    const body = { id, who, version: seen, acts, reason: reason || null }
    const call = client.POST('/api/builds/{build}/plan', { params: { path: { build: build.value } }, body })
    try {
      const edited = (await got<unknown>(call)) as Edited
      view.value = edited.desk
      turned.value = edited.turned
      kept.value = edited.kept_in ?? ''
      await useBook().reload()
      return edited
    } catch (error) {
      await load(build.value)
      throw error
    }
  }
  return { view, figures, build, problem, turned, kept, load, loadFigures, look, take }
})
