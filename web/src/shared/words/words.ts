import { reactive } from 'vue'

import { api, type Schemas, taken } from '@/shared/api/client'
import { inBrowser } from '@/shared/offline/preference'

/** The craft's words for codes, as the core writes them; kept in this browser so that a page opens without the server. */
type Words = Schemas['Words']
const kept = 'entretoile.words'
const words = reactive<Words>({
  kinds: {},
  methods: {},
  schools: {},
  cuts: {},
  readings: {},
  cloths: {},
  goals: {},
  orders: {},
  markings: {},
  rungs: {},
  dimensions: {},
  reasons: {},
  work: {},
})

export const kindWords = words.kinds
export const schoolWords = words.schools
export const cutWords = words.cuts
export const readingWords = words.readings
export const clothWords = words.cloths
export const goalWords = words.goals
export const orderWords = words.orders
export const markingWords = words.markings
export const rungWords = words.rungs
export const dimensionWords = words.dimensions
export const reasonWords = words.reasons
export const workWords = words.work

/** Ways of making a unit; the same name may mean another thing for another kind. */
export const methodWords = (kind: string, method: string): { name: string; line: string } =>
  words.methods[`${kind}/${method}`] ?? { name: method, line: '' }

function fill(found: Words) {
  for (const list of Object.keys(words) as (keyof Words)[]) Object.assign(words[list], found[list])
}

function read(): Words | undefined {
  try {
    return JSON.parse(inBrowser.getItem(kept) ?? '') as Words
  } catch {
    return undefined
  }
}

/** Before the first page is drawn: what was kept at once, what the server says as soon as it does. */
export async function openWords(): Promise<void> {
  const before = read()
  if (before) fill(before)
  const fresh = taken(api.GET('/api/words')).then((found) => {
    fill(found)
    try {
      inBrowser.setItem(kept, JSON.stringify(found))
    } catch {
      // A full or forbidden storage only means that they are asked for again.
    }
  })
  await (before ? Promise.race([fresh, Promise.resolve()]) : fresh).catch(() => undefined)
}

export const plural = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`
