import { onScopeDispose, reactive } from 'vue'

import { Refusal } from '@/shared/api/client'

import { standsIn, tellOnTop } from './queue'
import { editOf, type Over, same, useTyped } from './typed'

type Edit = ReturnType<typeof editOf>

/**
 * Fields of one thing that are handed over by `put` (by the outbox's `typedIn`) when `save` is called with their names. What is
 * refused stays typed, with its reason in `problems`, is not sent again as it is while nothing beside it changes, and holds up
 * nothing else. Left standing when its page goes, it is told on top of the next one.
 */
export function useFields<T extends Record<string, unknown>>(
  kept: () => T,
  over: Over,
  put: (edit: Edit) => Promise<unknown>,
) {
  const { typed, base, dirty, refused } = useTyped(kept, over)
  const problems = reactive<Record<string, string>>({})
  /** As it was sent, and in which change; `again` once something beside it was taken, on which it may have hung. */
  const refusals: Record<string, { as: unknown; change: string; again?: boolean }> = {}
  const standing = (f: string) => f in problems && same(refusals[f]?.as, typed[f])
  let here = true

  function putRight(f: string) {
    const was = refusals[f]
    delete problems[f]
    delete refusals[f]
    if (was) standsIn(was.change, (other) => refusals[other]?.change === was.change)
  }

  onScopeDispose(() => {
    here = false
    for (const f of Object.keys(refusals)) if (!standing(f)) putRight(f)
    for (const { change } of Object.values(refusals)) tellOnTop(change)
  })

  async function save(...fields: (keyof T & string)[]) {
    for (const f of fields) if (!standing(f) || refusals[f]?.again) putRight(f)
    let left = dirty().filter((f) => fields.includes(f) && !standing(f) && !refused(f))
    while (left.length) {
      const sent = editOf(left, typed, base.value)
      const refusal = await answered(put(sent))
      // Its page is gone: the queue tells what was refused, and sends what stood beside it.
      if (!refusal) for (const was of Object.values(refusals)) was.again = true
      if (!refusal || !here) return
      const said = told(refusal, left)
      for (const [f, why] of Object.entries(said)) {
        refusals[f] = { as: sent.changes[f], change: refusal.change }
        // What was typed since is another text, and on its way by itself.
        if (same(refusals[f].as, typed[f])) problems[f] = why
        else delete refusals[f]
      }
      standsIn(refusal.change, (f) => f in refusals)
      left = left.filter((f) => !(f in said))
    }
  }
  return { typed, base, dirty, problems, save }
}

/** The refusal that came back, if one did. */
async function answered(sent: Promise<unknown>): Promise<Refusal | undefined> {
  try {
    await sent
    return undefined
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    return error
  }
}

/** Why each of the fields was refused; a reason that names none of them is told with all. */
function told(refusal: Refusal, fields: string[]): Record<string, string> {
  const { errors } = refusal.problem
  const named = errors.filter((e) => fields.includes(e.field))
  if (fields.length > 1 && named.length) return Object.fromEntries(named.map((e) => [e.field, e.message]))
  const why = named[0]?.message ?? errors[0]?.message ?? refusal.message
  return Object.fromEntries(fields.map((f) => [f, why]))
}
