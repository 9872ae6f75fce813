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
export type InspectBenchView = Schemas['InspectBench']
export type RemoveBenchView = Schemas['RemoveBench']
export type MeasureBenchView = Schemas['MeasureBench']
export type TightenBenchView = Schemas['TightenBench']
export type FillBenchView = Schemas['FillBench']
export type RunBenchView = Schemas['RunBench']
export type BenchView =
  | CheckBenchView
  | InspectBenchView
  | RemoveBenchView
  | MeasureBenchView
  | TightenBenchView
  | FillBenchView
  | RunBenchView
export type FeedView = Schemas['FeedView']
export type InstrumentView = Schemas['InstrumentView']
export type SentView = Schemas['SentView']
export type PullView = Schemas['PullView']
export type TraceBench = Schemas['TraceBench']
export type PlanView = Schemas['PlanView']
export type PlanRow = Schemas['PlanRow']
export type Difference = Schemas['Difference']
export type LimitBook = Schemas['LimitBook']
export type FigureRow = Schemas['FigureRow']
export type PlanAct = Schemas['PlanEdit']['acts'][number]
export type Entry = Schemas['EntryEdit']['entry']
export type TakeDown = Schemas['TakeDownView']
export type BagLine = TakeDown['recent'][number]
export type BagContent = Schemas['BagContent']
export type Capture = Schemas['CaptureView']
export type PhotoView = Schemas['PhotoView']
export type ClipView = Schemas['ClipView']
export type Pin = Schemas['Pin']
export type Rebuild = Schemas['RebuildView']
export type ReadingFacts = Schemas['ReadingFacts']
export type ResultFacts = Schemas['ResultFacts']
export type PartFacts = Schemas['PartFacts']
export type Trace = Schemas['TraceFacts']
export type Inspection = Schemas['InspectionView']
export type CalculationForm = Schemas['CalculationForm']
export type SupportDesk = Schemas['SupportDesk']

export const client = createClient<paths>({
  baseUrl: window.location.origin,
  fetch: (request) => fetch(request),
})

/** A refusal by the server, in its own sentence. */
export class Refusal extends Error {
  constructor(
    readonly problem: Problem,
    readonly status: number,
  ) {
    super(problem.message)
  }
}

/** What went wrong, as a sentence. */
export const sentence = (error: unknown) => (error instanceof Error ? error.message : String(error))
/** The server does not refuse: it asks, and takes the same once more. */
export const onlyAsks = (error: unknown): error is Refusal =>
  error instanceof Refusal && error.problem.asks === true

/**
 * No answer that can be read; `status` is null when nothing came back at all. Log entries wait in the
 * browser (see the journal store); nothing else does.
 */
export class Unreached extends Error {
  constructor(readonly status: number | null = null) {
    super('Hollet cannot be reached, so nothing was changed. Try again when it is back.')
  }
}

/** Keep a photo on the server; it is on disk there when this resolves. */
export const sendPhoto = (file: Blob) => sendFile<Schemas['StoredPhoto']>('/api/photos', file)
export const sendClip = (file: Blob) => sendFile<Schemas['StoredClip']>('/api/clips', file)
export const sendSound = (file: Blob) => sendFile<Schemas['StoredSound']>('/api/sounds', file)

async function sendFile<T>(path: string, file: Blob): Promise<T> {
  const body = new FormData()
  body.append('file', file, 'file')
  let response: Response
  try {
    response = await fetch(path, { method: 'POST', body })
  } catch {
    throw new Unreached()
  }
  const read = (await response.json().catch(() => undefined)) as unknown
  return got(Promise.resolve({ response, ...(response.ok ? { data: read as T } : { error: read }) }))
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
  if (answer.response.status === 401) window.location.assign('/pair')
  const problem = answer.error as Partial<Problem> | undefined
  if (!problem?.message) throw new Unreached(answer.response.status)
  throw new Refusal(
    { refuse: true, reason_code: 'http', newer: [], field: null, ...problem } as Problem,
    answer.response.status,
  )
}
