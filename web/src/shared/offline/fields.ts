import { reactive } from 'vue'

import { Refusal } from '@/shared/api/client'

import { editOf, type Over, useTyped } from './typed'

type Edit = ReturnType<typeof editOf>

/**
 * Fields of one thing that are handed over by `put` when `save` is called with their names. What is refused stays typed, with
 * its reason in `problems`, is not sent again as it is while nothing beside it changes, and holds up nothing else.
 */
export function useFields<T extends Record<string, string>>(
  kept: () => T,
  over: Over,
  put: (edit: Edit) => Promise<unknown>,
) {
  const { typed, base, dirty, refused } = useTyped(kept, over)
  const problems = reactive<Record<string, string>>({})
  let refusedAs: Record<string, string> = {}

  async function save(...fields: (keyof T & string)[]) {
    const standing = (f: string) => f in problems && refusedAs[f] === typed[f]
    for (const f of fields) if (!standing(f)) delete problems[f]
    let left = dirty().filter((f) => fields.includes(f) && !standing(f) && !refused(f))
    while (left.length) {
      const sent = editOf(left, typed, base.value)
      const said = told(await answered(put(sent)), left)
      for (const [f, why] of Object.entries(said)) {
        refusedAs[f] = String(sent.changes[f])
        // What was typed since is another text, and on its way by itself.
        if (refusedAs[f] === typed[f]) problems[f] = why
      }
      if (!Object.keys(said).length) return void (refusedAs = {})
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
function told(refusal: Refusal | undefined, fields: string[]): Record<string, string> {
  if (!refusal) return {}
  const { errors } = refusal.problem
  const named = errors.filter((e) => fields.includes(e.field))
  if (fields.length > 1 && named.length) return Object.fromEntries(named.map((e) => [e.field, e.message]))
  const why = named[0]?.message ?? errors[0]?.message ?? refusal.message
  return Object.fromEntries(fields.map((f) => [f, why]))
}
