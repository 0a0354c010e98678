import { computed, onBeforeUnmount, onScopeDispose, reactive, ref, watch } from 'vue'

import { type Change, type Editing, thingOf } from './change'
import { refused as toldOnTop } from './conflicts'
import { changes } from './queue'
import { erase, readAll, write } from './store'

type Fields = Record<string, unknown>

export const same = (a: unknown, b: unknown) => a === b || JSON.stringify(a ?? '') === JSON.stringify(b ?? '')

/** Places in which something is typed that was not handed over. */
const typing = reactive(new Set<symbol>())

/** A place counts while something is typed in it, and no longer than it is there. */
function countWhile(on: () => boolean) {
  const mine = Symbol('place')
  watch(on, (now) => (now ? typing.add(mine) : typing.delete(mine)), { immediate: true, flush: 'sync' })
  onScopeDispose(() => typing.delete(mine))
}

/** A thing that fields belong to, and how the changes of it read as those fields. */
export interface Over {
  thing: () => string
  flat?: (changes: Fields) => Fields
  /** What a change that makes the thing says of where it is, and nobody types. */
  place?: readonly string[]
}

const plain = (changes: Fields) => changes
export const changesOf = ({ thing, flat = plain }: Over, of: readonly Change[]) =>
  of
    .filter((c) => 'changes' in c.what && thingOf(c.what) === thing())
    .map((c) => flat((c.what as Editing).changes as Fields))

const inQueue = (refused: boolean) => changes.value.filter((c) => (c.state === 'refused') === refused)

/** What is on its way to a thing, over what the server has: the later change over the earlier. */
export const onItsWay = (over: Over): Fields =>
  Object.assign({}, ...changesOf(over, inQueue(false))) as Fields

/**
 * Fields as they are typed. A field nobody is typing in follows what the server, or another window, says; what is on its
 * way counts as said, and what was refused stays as it was typed until it is put away. `base` is what a change is made against, `dirty` the
 * fields that differ from it; `refused` tells whether just what stands in a field was refused and is told on top of the page: it is
 * not sent again as it is.
 */
export function useTyped<T extends Fields>(kept: () => T, ...overs: Over[]) {
  const base = computed(() => Object.assign({}, kept(), ...overs.map(onItsWay)) as T)
  const typed = reactive({ ...base.value }) as T
  const ofMine = (of: readonly Change[]) => overs.flatMap((o) => changesOf(o, of))
  const among = (f: string, of: readonly Change[]) => ofMine(of).some((c) => f in c && same(c[f], typed[f]))
  const stays = (f: string) => among(f, inQueue(true))
  const refused = (f: string) => among(f, toldOnTop.value)
  watch(base, (now, was) => {
    for (const f of new Set([...Object.keys(now), ...Object.keys(was)]))
      if (same(typed[f], was[f]) && !same(now[f], was[f]) && !stays(f)) {
        if (f in now) (typed as Fields)[f] = now[f]
        // A field that there is no more, such as the size of a piece that is not cut any longer.
        else Reflect.deleteProperty(typed, f)
      }
  })
  watch(
    () => ofMine(toldOnTop.value),
    (now, was) => {
      for (const gone of was.filter((c) => !now.some((x) => same(x, c))))
        for (const f of Object.keys(gone))
          if (f in base.value && same(typed[f], gone[f]) && !stays(f)) (typed as Fields)[f] = base.value[f]
    },
  )
  const dirty = () =>
    [...new Set([...Object.keys(typed), ...Object.keys(base.value)])].filter(
      (f) => !same(typed[f], base.value[f]),
    )
  countWhile(() => dirty().length > 0)
  return { typed, base, dirty, refused }
}

/** What is typed goes out when its page is left or its window closed, however little time there was. */
export function onLeaving(save: () => void) {
  onBeforeUnmount(save)
  window.addEventListener('pagehide', save)
  onScopeDispose(() => window.removeEventListener('pagehide', save))
}

/** The field one is in lets go of what is typed, as by Tab: a page read again or left by the way back does not do that itself. */
export function letGo() {
  const field = document.activeElement
  if (field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement) field.blur()
}

/** The fields of one thing as they would be sent: what they become, and what was seen in them. */
export function editOf(fields: string[], typed: Fields, base: Fields) {
  const pick = (from: Fields) => Object.fromEntries(fields.map((f) => [f, from[f] ?? '']))
  return { changes: pick(typed), seen: pick(base) }
}

const drafts = reactive(new Map<string, Fields>())

/** Texts that were typed in this browser and could not be saved, read back before the first page is drawn. */
export async function openDrafts(): Promise<void> {
  for (const { key, fields } of await readAll('drafts'))
    if (Object.keys(fields).length) drafts.set(key, fields)
}

/** A form that is begun and left waits for its page; it counts while it is on it. */
const aForm = (key: string) => `form ${key}`
const isForm = (key: string) => key.startsWith(aForm(''))

/** Whether anything is typed that was not handed over. */
export const unsent = computed(() => typing.size > 0 || [...drafts.keys()].some((key) => !isForm(key)))

/** Whether a form was begun in this browser and waits for its page to come back to it. */
export const isBegun = (key: string) => drafts.has(aForm(key))

/** What was typed in a place and could not be saved yet; kept through a reload. */
export function useDraft(key: string) {
  function keepDraft(fields: Fields) {
    const now = Object.keys(fields).length ? fields : undefined
    if (same(now, drafts.get(key))) return
    if (now) {
      drafts.set(key, now)
      void write('drafts', { key, fields: JSON.parse(JSON.stringify(now)) as Fields })
    } else {
      drafts.delete(key)
      void erase('drafts', key)
    }
  }
  return { draft: { ...drafts.get(key) } as Fields, keepDraft }
}

/**
 * A form for something new, or for what is put right as a whole: it begins as `fresh` says, and what was typed in it is there
 * again after a reload, or when one comes back to it, until it is handed over or given up by `clear`. What `stays` goes on for
 * the next one, as long as its page is open.
 */
export function useForm<T extends Fields>(key: string, fresh: () => T, ...stays: (keyof T)[]) {
  const { draft, keepDraft } = useDraft(aForm(key))
  const typed = reactive(fresh()) as T
  for (const f in typed) if (typeof draft[f] === typeof typed[f]) typed[f] = draft[f] as T[typeof f]
  /** Handed over, and not answered yet: the queue keeps it, and a reload does not bring it back here as well. */
  const handed = ref(false)
  const begun = computed(() => {
    const from = fresh()
    const fields = Object.fromEntries(Object.entries(typed).filter(([f, v]) => !same(v, from[f])))
    return !handed.value && Object.keys(fields).some((f) => !stays.includes(f)) ? fields : {}
  })
  watch(begun, keepDraft, { immediate: true, flush: 'sync' })
  countWhile(() => Object.keys(begun.value).length > 0)
  function clear() {
    const gone = Object.entries(fresh()).filter(([f]) => !stays.includes(f))
    Object.assign(typed, Object.fromEntries(gone))
  }
  /** Cleared once it is taken; what is refused stays typed. */
  async function hand(over: () => Promise<unknown>) {
    handed.value = true
    try {
      await over()
      clear()
    } finally {
      handed.value = false
    }
  }
  return { typed, clear, hand }
}
