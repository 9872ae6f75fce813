/** One judged result as the drawings take it. */
export interface Lane {
  id: string
  name: string
  value: number | null
  U: number | null
  text: string
  verdict: string
  side: string | null
  accepted: boolean
  words: string
}
