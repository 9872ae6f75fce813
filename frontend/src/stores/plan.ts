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
  const sheets = ref<Schemas['SheetsDesk'] | null>(null)

  /** What the sheets of a build say now, and what it could give them. */
  const sheetsOf = (id: string) =>
    got(client.GET('/api/builds/{build}/sheets', { params: { path: { build: id } } }))

  async function load(id: string) {
    if (build.value !== id) {
      view.value = figures.value = sheets.value = null
      turned.value = []
      kept.value = ''
    }
    build.value = id
    const path = { build: id }
    try {
      // both before anything is drawn: what comes later would push the desk down
      const [loaded, told] = await Promise.all([
        got<unknown>(client.GET('/api/builds/{build}/plan', { params: { path } })),
        sheetsOf(id).catch((error: unknown) => sentence(error)),
      ])
      if (build.value === id) {
        view.value = loaded as PlanView
        sheets.value = typeof told === 'string' ? null : told
      }
      problem.value = typeof told === 'string' ? told : ''
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
  /** What this build found goes into one's own copies; their titles. Throws a Refusal. */
  async function keepFound(): Promise<readonly string[]> {
    const body = { who: await useSession().whoIsIt() }
    const path = { build: build.value }
    const found = await got(client.POST('/api/builds/{build}/sheets/own', { params: { path }, body }))
    sheets.value = await sheetsOf(build.value)
    return found.titles
  }
  return { view, sheets, keepFound, figures, build, problem, turned, kept, load, loadFigures, look, take }
})
