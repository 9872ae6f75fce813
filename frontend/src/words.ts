/** A range of hours, such as "14 to 19 h". */
export function hours(range: readonly number[]): string {
  const [lo, hi] = range.map((h) => (h >= 10 ? Math.round(h) : Math.round(h * 10) / 10))
  return lo === hi ? `${lo} h` : `${lo} to ${hi} h`
}

/** A sentence begins with a capital. */
export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}

/** Such as "1 step" and "12 steps". */
export const counted = (number: number, one: string) => `${number} ${one}${number === 1 ? '' : 's'}`
