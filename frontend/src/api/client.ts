/** The one typed client. A failed call is a value with a Problem in it, or a lost connection. */
import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type BuildCard = Schemas['BuildCard']
export type BookFrame = Schemas['BookView']
export type LogLine = Schemas['LogLine']
export type OpenItem = Schemas['OpenItem']
export type Judgement = Schemas['Judgement']
export type Instrument = Schemas['Instrument']
export type AppendView = Schemas['AppendView']
export type Problem = Schemas['Problem']
export type CheckBenchView = Schemas['CheckBench']
export type RemoveBenchView = Schemas['RemoveBench']
export type MeasureBenchView = Schemas['MeasureBench']
export type TightenBenchView = Schemas['TightenBench']
export type FillBenchView = Schemas['FillBench']
export type RunBenchView = Schemas['RunBench']
export type BenchView = CheckBenchView | RemoveBenchView | MeasureBenchView | TightenBenchView | FillBenchView | RunBenchView
export type PlanView = Schemas['PlanView']
export type PlanRow = Schemas['PlanRow']
export type Difference = Schemas['Difference']
export type LimitBook = Schemas['LimitBook']
export type FigureRow = Schemas['FigureRow']
export type PlanAct = Schemas['PlanEdit']['acts'][number]
export type Entry = Schemas['EntryEdit']['entry']

export const client = createClient<paths>({ baseUrl: window.location.origin })

/** A refusal by the server, in its own sentence. */
export class Refusal extends Error {
  constructor(
    readonly problem: Problem,
    readonly status: number,
  ) {
    super(problem.message)
  }
}

/** The server could not be reached. Log entries wait in the browser (see the journal store); nothing else does. */
export class Unreached extends Error {
  constructor() {
    super('Hollet cannot be reached, so nothing was changed. Try again when it is back.')
  }
}

interface Answer<T> {
  data?: T
  error?: unknown
  response: Response
}

/** The data of a call, or a thrown Refusal or Unreached. */
export async function got<T>(call: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>
  try {
    answer = await call
  } catch {
    throw new Unreached()
  }
  if (answer.response.ok && answer.data !== undefined) return answer.data
  const problem = answer.error as Partial<Problem> | undefined
  if (!problem?.message) throw new Unreached()
  throw new Refusal({ refuse: true, reason_code: 'http', newer: [], field: null, ...problem } as Problem, answer.response.status)
}
