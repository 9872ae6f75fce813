/** What was typed and is not acknowledged yet, kept in IndexedDB so that a reload loses nothing. */
import { type DBSchema, type IDBPDatabase, openDB } from 'idb'
import type { Entry } from '@/api/client'
import { about } from './stepper'

export interface Waiting {
  id: string
  build: string
  who: string
  bench_time: string
  seen: number
  entry: Entry
  refused: string | null
  about: string // only entries about the same wait for each other
  after?: string | null // the one before it in this queue, about the same
  tries?: number
  file?: Blob // a photo or a recording that is not on the server yet; its entry waits for it
}

interface Shelf extends DBSchema {
  queue: { key: string; value: Waiting }
}

let shelf: Promise<IDBPDatabase<Shelf>> | null = null

function open(): Promise<IDBPDatabase<Shelf>> {
  shelf ??= openDB<Shelf>('hollet', 1, {
    upgrade: (db) => void db.createObjectStore('queue', { keyPath: 'id' }),
  })
  return shelf
}

export async function keep(item: Waiting): Promise<void> {
  const { file, ...rest } = item
  const plain = JSON.parse(JSON.stringify(rest)) as Waiting
  await (await open()).put('queue', file ? { ...plain, file } : plain)
}

export async function drop(id: string): Promise<void> {
  await (await open()).delete('queue', id)
}

/** All that waits, in the order in which it was typed (ids of version 7 sort by time). */
export async function all(): Promise<Waiting[]> {
  const kept = (await (await open()).getAll('queue')) as (Omit<Waiting, 'about'> & { about?: string })[]
  // from before it was kept
  return kept.map((item) => ({ ...item, about: item.about ?? about(item.build, item.entry) }))
}
