/** How a step is called done, passed, begun out of order, said not to be there, or skipped. */
import { computed } from 'vue'
import type { BenchView } from '@/api/client'
import { useBook } from '@/stores/book'
import { capital } from '@/words'
import type { Asker } from './asking'

const LEAST = 10 // letters of a reason in words

/** `bench` is the step on the screen, `asker` the dialog that asks, `next` goes on to what follows. */
export function usePassing(bench: () => BenchView, asker: () => Asker | null | undefined, next: () => void) {
  const book = useBook()
  const base = computed(() => bench().base)
  /** A reason may be spoken where only order is passed: never where the step has a box. */
  const aloud = computed(() => (base.value.other_box ? undefined : base.value.step))
  const passed = () => ({
    why: `${capital(base.value.pass_words)}.`,
    keys: base.value.pass_keys,
    least: LEAST,
    aloud: aloud.value,
  })

  async function done(reason?: string | null, spoken: string | null = null) {
    if (await book.act({ kind: 'done', step: base.value.step, reason: reason || null, spoken })) next()
  }
  /** Passed by a reason; where another step stands on this one, its box is pressed with it. */
  async function allTheSame() {
    const { step, waits, other_box, confirmed, box: own } = base.value
    const inOrder = !waits.length
    const box = inOrder && !(own && confirmed) ? other_box : null
    const said = await asker()?.put({
      title: inOrder ? 'Done in another way' : 'Done out of order',
      button: 'Done all the same',
      ...passed(),
      box,
    })
    if (!said) return
    if (box && !(await book.act({ kind: 'confirmed', step, what: box }))) return
    await done(said.words, said.spoken)
  }
  /** Work before what it waits for, with a reason; the step itself is done later, by what it asks. */
  async function begin() {
    const { step } = base.value
    const said = await asker()?.put({
      title: 'Begin out of order',
      button: 'Begin all the same',
      ...passed(),
    })
    if (said) await book.act({ kind: 'started', step, reason: said.words || null, spoken: said.spoken })
  }
  async function notThere() {
    const { step, title } = base.value
    const said = await asker()?.put({
      title: 'It is not there',
      button: 'It is not there',
      thing: title,
      least: LEAST,
      why: 'Said of this thing alone: nothing waits for it any more. The line can be struck.',
    })
    if (!said) return
    if (await book.act({ kind: 'not there', step, thing: said.thing || title, looked: said.words })) next()
  }
  async function skip(notApplicable: boolean) {
    const { step, waited_for, skip_keys } = base.value
    const said = await asker()?.put({
      title: notApplicable ? 'This step does not apply' : 'Skip this step',
      button: notApplicable ? 'Not applicable' : 'Skipped',
      keys: skip_keys,
      least: LEAST,
      why: waited_for.length
        ? `Skipped, it satisfies nothing that stands on it: ${waited_for.join('; ')}.`
        : undefined,
      aloud: aloud.value,
    })
    if (!said) return
    const how = { reason: said.words || null, not_applicable: notApplicable, spoken: said.spoken }
    if (await book.act({ kind: 'skipped', step, ...how })) next()
  }
  async function letGo(thing: string) {
    const { step, chance_keys } = base.value
    const reason = await asker()?.ask({
      title: `Let it go: ${thing}`,
      button: 'Not wanted',
      keys: chance_keys,
      least: LEAST,
      why: 'After this step nobody reaches it without taking things off again.',
    })
    if (reason) await book.act({ kind: 'decision', step, about: 'last_chance', thing, reason })
  }
  const happened = () => book.act({ kind: 'happened', step: base.value.step })
  const reopen = () => book.act({ kind: 'reopened', step: base.value.step, reason: 'looked at again' })
  return { done, allTheSame, begin, notThere, skip, letGo, happened, reopen }
}
