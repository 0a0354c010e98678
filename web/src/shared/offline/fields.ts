import { onScopeDispose, reactive, watch } from 'vue'

import { type Problem, Refusal } from '@/shared/api/client'

import type { Change } from './change'
import { refused as toldOnTop } from './conflicts'
import { changes, standsIn, tellInPlace, tellOnTop } from './queue'
import { changesOf, editOf, type Over, same, useTyped } from './typed'

type Edit = ReturnType<typeof editOf>

/**
 * Fields of one thing that are handed over by `put` (by the outbox's `typedIn`) when `save` is called with their names. What is
 * refused stays typed, with its reason in `problems`, is not sent again as it is while nothing beside it changes, and holds up
 * nothing else. Left standing when its page goes, it is told on top of the next one, and stands in its fields again when they are back.
 */
export function useFields<T extends Record<string, unknown>>(
  kept: () => T,
  over: Over,
  put: (edit: Edit) => Promise<unknown>,
) {
  const { typed, base, dirty, refused } = useTyped(kept, over)
  const problems = reactive<Record<string, string>>({})
  /** As it was sent, and in which change; `again` once something beside it was taken, on which it may have hung. */
  const refusals: Record<string, { as: unknown; change: string; beside: boolean; again?: boolean }> = {}
  const standing = (f: string) => f in problems && same(refusals[f]?.as, typed[f])
  let here = true

  /** What is left of a change that was refused: its fields, and where they belong as long as there are any. */
  function stands(change: string, wanted: (f: string) => boolean) {
    const some = Object.keys(refusals).some(wanted)
    standsIn(change, (f) => wanted(f) || (some && !!over.place?.includes(f)))
  }

  function putRight(f: string) {
    const was = refusals[f]
    delete problems[f]
    delete refusals[f]
    if (was) stands(was.change, (other) => refusals[other]?.change === was.change)
  }

  onScopeDispose(() => {
    here = false
    for (const f of Object.keys(refusals)) if (!standing(f)) putRight(f)
    for (const { change } of Object.values(refusals)) tellOnTop(change)
  })

  /** Told on top since its page was gone: it stands where it was typed, unless something else is typed there by now. */
  function takeBack(c: Change) {
    const [mine] = changesOf(over, [c])
    if (!mine || !c.problem || !('changes' in c.what)) return
    const fields = Object.keys(mine)
    // All of it, or it is told on top still.
    const sent = Object.keys(c.what.changes).filter((f) => !over.place?.includes(f))
    const all = fields.length === sent.length && fields.length > 0
    if (!all || !fields.every((f) => f in base.value)) return
    if (fields.some((f) => !same(typed[f], base.value[f]) && !same(typed[f], mine[f]))) return
    const why = problemsOf(c.problem, fields)
    for (const f of fields) {
      putRight(f)
      ;(typed as Record<string, unknown>)[f] = mine[f]
      refusals[f] = { as: mine[f], change: c.id, beside: isBeside(c.problem, fields) }
      problems[f] = why[f] ?? c.problem.detail
    }
    tellInPlace(c.id)
  }
  // Typed back to what is there, it is right, and there is nothing to hand over.
  watch(
    () => ({ ...typed }),
    (now) => Object.keys(refusals).forEach((f) => same(now[f], base.value[f]) && putRight(f)),
  )
  watch(toldOnTop, (now) => now.forEach(takeBack), { immediate: true })
  watch(changes, (now) => {
    // Put right, or put away, in another window.
    for (const [f, was] of Object.entries(refusals)) {
      if (now.some((c) => c.id === was.change)) continue
      if (standing(f)) (typed as Record<string, unknown>)[f] = base.value[f]
      delete problems[f]
      delete refusals[f]
    }
  })

  async function save(...fields: (keyof T & string)[]) {
    for (const f of fields) if (!standing(f) || refusals[f]?.again) putRight(f)
    let left = dirty().filter((f) => fields.includes(f) && !standing(f) && !refused(f))
    while (left.length) {
      const sent = editOf(left, typed, base.value)
      const refusal = await refusalOf(put(sent))
      // Its page is gone: the queue tells what was refused, and sends what stood beside it.
      if (!refusal) for (const was of Object.values(refusals)) was.again = true
      if (!refusal || !here) {
        const mayGoIn = Object.keys(refusals).filter((f) => standing(f) && refusals[f]!.beside)
        // What stood in its way may be gone: one who picked it would have to pick something else first, to pick it again.
        if (here && mayGoIn.length) await save(...mayGoIn)
        return
      }
      const said = problemsOf(refusal.problem, left)
      for (const [f, why] of Object.entries(said)) {
        refusals[f] = { as: sent.changes[f], change: refusal.change, beside: isBeside(refusal.problem, left) }
        // What was typed since is another text, and on its way by itself.
        if (same(refusals[f].as, typed[f])) problems[f] = why
        else delete refusals[f]
      }
      stands(refusal.change, (f) => f in refusals)
      left = left.filter((f) => !(f in said))
    }
  }
  return { typed, base, dirty, problems, save }
}

/** Whether it was refused for another field than those that were sent: it may go in once that one is changed. */
const isBeside = ({ errors }: Problem, sent: string[]) =>
  errors.some((e) => e.field && !sent.includes(e.field))

/** The refusal that came back, if one did. */
async function refusalOf(sent: Promise<unknown>): Promise<Refusal | undefined> {
  try {
    await sent
    return undefined
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    return error
  }
}

/** Why each of the fields was refused; a reason that names none of them is told with all. */
function problemsOf({ errors, detail }: Problem, fields: string[]): Record<string, string> {
  const named = errors.filter((e) => fields.includes(e.field))
  if (fields.length > 1 && named.length) return Object.fromEntries(named.map((e) => [e.field, e.message]))
  const why = named[0]?.message ?? errors[0]?.message ?? detail
  return Object.fromEntries(fields.map((f) => [f, why]))
}
