/** What a question asks and what is answered: the one dialog through which every question goes. */
import type { Schemas } from '@/api/client'

export type Carry = Schemas['Carry']

/**
 * `keys` give a reason with one press, else it has `least` letters; `box` must be pressed first, seen now;
 * `aloud`: it may be spoken at this step; `thing` and `carry` ask which thing, and what carries it now.
 */
export interface Question {
  aloud?: string
  title: string
  why?: string
  button: string
  least?: number
  keys?: readonly string[]
  box?: string | null
  thing?: string
  carry?: Carry['body']
}
export interface Answer {
  spoken: string | null
  words: string
  thing: string
  carry: Carry | null
}
/** Null when the question was closed. */
export interface Asker {
  put: (question: Question) => Promise<Answer | null>
  ask: (question: Question) => Promise<string>
}
