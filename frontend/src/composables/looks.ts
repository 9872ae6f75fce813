/** What is typed of bolts that moved: `3: 84, 5` is bolt 3 at 84, and bolt 5. */
export function movedOf(text: string): { bolt: number; typed: string }[] {
  return text
    .split(/[,;]/)
    .flatMap((part) => (part.includes(':') ? [part] : part.trim().split(/\s+/)))
    .filter((part) => part.trim())
    .map((part) => {
      const [bolt, ...rest] = part.split(':')
      return { bolt: Number(bolt), typed: rest.join(':').trim() }
    })
}
