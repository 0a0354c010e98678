import { notifyManager, onlineManager, type QueryClient } from '@tanstack/vue-query'
import { shallowRef } from 'vue'

import { Refusal, ServerAway } from '@/shared/api/client'

import { keep } from './cache'
import { type Change, type Editing, hangsOn, thingOf } from './change'
import { listen, tell } from './channel'
import { deliver } from './deliver'
import type { Outgoing } from './outgoing'
import { erase, readAll, write } from './store'

/**
 * Every change of every window of this browser, oldest first: kept in storage until the server has acknowledged it.
 * One window sends (the one that holds the lock); all of them show the same list. See docs/decisions/0010.
 */
export const changes = shallowRef<readonly Change[]>([])

interface Outcome {
  inPlace: () => boolean
  /** What was refused stays in the queue while it stands in its field: whoever shows it lets go of it. */
  stands: boolean
  resolve: (data: unknown) => void
  reject: (error: Error) => void
}
/** Refusals that are shown beside their field. */
export const inPlace = new Set<string>()
const outcomes = new Map<string, Outcome>()
let client: QueryClient
let leading = false
let sending = false
let pause = 0
let alarm: ReturnType<typeof setTimeout> | undefined

/** With the server, and about to be seen in what it answers. */
const made = new Set<string>()

const last = 1e15
const bySeq = (a: Change, b: Change) => (a.seq ?? last) - (b.seq ?? last) || a.born - b.born
const put = (c: Change) => (changes.value = [...changes.value.filter((x) => x.id !== c.id), c].sort(bySeq))
const drop = (id: string) => (changes.value = changes.value.filter((c) => c.id !== id))

/** What this window knows to be done with, so that it does not come back from storage or from a window that reads it late. */
const over = new Set<string>()

/** Reads back what was kept, and sends it as soon as this window may. */
export async function openQueue(queries: QueryClient): Promise<void> {
  client = queries
  // Heard before it is read: what another window is done with meanwhile is not taken for waiting.
  listen((told) => {
    if (told.type === 'added' && over.has(told.change.id)) return tell({ type: 'gone', id: told.change.id })
    if (told.type === 'added' || told.type === 'marked') put(told.change)
    else if (told.type === 'made') settle(told.id, told.data)
    else drop(told.id)
    if (told.type === 'made' || told.type === 'gone') over.add(told.id)
    if (told.type === 'marked' && told.change.state !== 'waiting') hand(told.change)
    if (told.type === 'added') wake()
  })
  for (const kept of await readAll('changes')) {
    if (over.has(kept.id) || changes.value.some((c) => c.id === kept.id)) continue
    put(kept)
    // A window that was read again in the middle of telling: the one that sends may not have heard of it.
    if (kept.state === 'waiting') tell({ type: 'added', change: kept })
  }
  onlineManager.subscribe((on) => on && wake())
  void lead()
}

async function lead() {
  const take = async () => {
    // What a window that is gone left behind, in the order in which it was typed.
    for (const c of await readAll('changes')) if (!over.has(c.id)) put(c)
    leading = true
    wake()
    await new Promise(() => undefined)
  }
  // Without locks there is no telling windows apart: each sends, and the server takes the second copy as the same one.
  await (navigator.locks ? navigator.locks.request('entretoile.queue', take) : take())
}

/**
 * Adds a change: seen at once, kept in storage and sent side by side. Resolves with the answer; a refusal
 * rejects, and stays in the queue to be seen unless the caller is there to show it `inPlace`.
 */
export function add(what: Outgoing, inPlace = () => false, stands = false): Promise<unknown> {
  // Plain data, as it is at this moment.
  const change: Change = {
    id: crypto.randomUUID(),
    what: JSON.parse(JSON.stringify(what)) as Outgoing,
    state: 'waiting',
    from: location.pathname + location.search,
    tries: 0,
    born: performance.timeOrigin + performance.now(),
    notBefore: 0,
  }
  put(change)
  const outcome = new Promise<unknown>((resolve, reject) =>
    outcomes.set(change.id, { inPlace, stands, resolve, reject }),
  )
  // Nobody may be waiting for it; a refusal is then shown on top of the page.
  outcome.catch(() => undefined)
  void write('changes', change).then((seq) => putInStore(change, seq as number | undefined))
  wake()
  return outcome
}

/** In storage, or refused by it. What the server acknowledged meanwhile is not kept any longer. */
function putInStore(change: Change, seq: number | undefined) {
  if (seq !== undefined) change.seq = seq
  if (!changes.value.some((c) => c.id === change.id) || made.has(change.id)) {
    if (seq !== undefined) void erase('changes', seq)
    return
  }
  const now = { ...changes.value.find((c) => c.id === change.id)!, seq }
  put(now)
  // Refused or put off while it was being written.
  if (seq !== undefined && (now.state !== 'waiting' || now.tries)) void write('changes', now)
  tell({ type: 'added', change })
  wake()
}

/** Takes a change out of the queue, made or given up. */
export async function remove(change: Change): Promise<void> {
  // Its place in storage may have become known since it was handed here.
  const { seq } = changes.value.find((c) => c.id === change.id) ?? change
  if (seq !== undefined) await erase('changes', seq)
  drop(change.id)
  over.add(change.id)
  outcomes.get(change.id)?.resolve(undefined)
  outcomes.delete(change.id)
  tell({ type: 'gone', id: change.id })
}

function mark(change: Change, what: Partial<Change>) {
  const now = { ...change, ...what }
  put(now)
  if (now.seq !== undefined) void write('changes', now)
  tell({ type: 'marked', change: now })
  return now
}

/** A clash decided: written knowingly over what is there. */
export function sendAgain(change: Change, what: Outgoing) {
  drop(change.id)
  tell({ type: 'gone', id: change.id })
  // A new name, since the server has not made the old one. Storage takes the new one before it lets go of the old.
  void add(what)
  if (change.seq !== undefined) void erase('changes', change.seq)
}

/** The part of a change that sets some fields only. */
export function only(what: Editing, wanted: (field: string) => boolean): Editing | undefined {
  const pick = (from: object) => Object.fromEntries(Object.entries(from).filter(([f]) => wanted(f)))
  const changes = pick(what.changes)
  return Object.keys(changes).length ? ({ ...what, changes, seen: pick(what.seen) } as Editing) : undefined
}

function wake() {
  if (!leading || sending) return
  clearTimeout(alarm)
  void sendAll()
}

/** The first change that nothing kept back stands before. */
function next(): Change | undefined {
  const back: Change[] = []
  const now = Date.now()
  for (const c of changes.value) {
    const held = back.some((b) => hangsOn(c.what, b.what))
    if (c.state !== 'waiting' || made.has(c.id)) continue
    if (!held && c.notBefore <= now) return c
    back.push(c)
  }
  return undefined
}

async function sendAll() {
  sending = true
  try {
    for (let c = next(); c && (await sendOne(c)); c = next());
  } finally {
    sending = false
  }
  const waiting = changes.value.filter((c) => c.state === 'waiting' && !made.has(c.id))
  if (!waiting.length) return
  const soonest = Math.min(...waiting.map((c) => c.notBefore)) - Date.now()
  clearTimeout(alarm)
  alarm = setTimeout(wake, Math.max(soonest, pause, 50))
}

/** Sends one; false when the server is away and all the rest waits with it. */
async function sendOne(first: Change): Promise<boolean> {
  const c = besideClash(first)
  if (!c) return true
  try {
    const data = await deliver(c.what, c.id)
    pause = 0
    over.add(c.id)
    // Told once it is out of storage, so that a window that opens now finds it neither there nor waiting.
    const erased = c.seq === undefined ? Promise.resolve() : erase('changes', c.seq)
    void erased.then(() => tell({ type: 'made', id: c.id, data }))
    settle(c.id, data)
    // Shown before the next one goes, since it may rest on it.
    await new Promise((shown) => notifyManager.schedule(() => shown(undefined)))
  } catch (error) {
    if (error instanceof ServerAway) {
      pause = Math.min(4_000, pause * 2 || 300)
      return false
    }
    // Only a refusal with a reason takes a change out; all else is the server's trouble, and tried again ever more slowly.
    if (error instanceof Refusal && error.problem.status < 500) notTaken(c, error)
    else mark(c, { tries: c.tries + 1, notBefore: Date.now() + Math.min(60_000, 500 * 2 ** c.tries) })
  }
  return true
}

/** What the answer says is on screen first; only then does the change stop standing over it. */
function settle(id: string, data: unknown) {
  const change = changes.value.find((c) => c.id === id)
  if (!change || made.has(id)) return
  made.add(id)
  const done = () =>
    notifyManager.schedule(() => {
      made.delete(id)
      drop(id)
      outcomes.get(id)?.resolve(data)
      outcomes.delete(id)
    })
  const shown = keep(client, change.what, data)
  if (shown) void shown.then(done, done)
  else done()
}

function notTaken(c: Change, refusal: Refusal) {
  const clash = refusal.problem.code === 'changed_elsewhere' && 'changes' in c.what
  // What was typed after it rests on what it would have set: it is told what is there instead.
  if ('seen' in c.what) for (const later of changes.value) rebase(later, c.what)
  // The same sent again, as when its page was left before the answer came, is told once.
  const said = JSON.stringify(c.what)
  for (const k of changes.value)
    if (k.id !== c.id && k.state === 'refused' && JSON.stringify(k.what) === said) void remove(k)
  const alone = clash || outcomes.get(c.id)?.inPlace() ? c : besideRefused(c, refusal)
  hand(mark(alone, { state: clash ? 'clash' : 'refused', problem: refusal.problem }))
}

/** Whose page is gone cannot send what stood beside the refused fields once more: it goes on by itself, and they are left. */
function besideRefused(c: Change, refusal: Refusal): Change {
  const named = new Set(refusal.problem.errors.map((e) => e.field))
  if (!('changes' in c.what) || !Object.keys(c.what.changes).some((f) => named.has(f))) return c
  const { seen } = c.what
  const rest = only(c.what, (f) => !named.has(f) && f in seen)
  const left = only(c.what, (f) => named.has(f) || !(f in seen))
  if (!rest || !left) return c
  void add(rest)
  return mark(c, { what: left })
}

/** What stands refused in its fields is so in these alone; in none of them, it is gone. */
export function standsIn(id: string, wanted: (field: string) => boolean) {
  const c = changes.value.find((x) => x.id === id && x.state === 'refused')
  if (!c || !('changes' in c.what)) return
  const left = only(c.what, wanted)
  if (!left) void remove(c)
  else if (Object.keys(left.changes).length < Object.keys(c.what.changes).length) mark(c, { what: left })
}

/** What stood refused in fields that are gone is told on top of the page that comes. */
export function tellOnTop(id: string) {
  if (inPlace.delete(id)) changes.value = [...changes.value]
}

/** What was told on top is shown beside its fields again, since these are back. */
export function tellInPlace(id: string) {
  inPlace.add(id)
  changes.value = [...changes.value]
}

function rebase(later: Change, gone: Editing) {
  if (later.state !== 'waiting' || !('seen' in later.what) || thingOf(later.what) !== thingOf(gone)) return
  const seen = { ...(later.what.seen as Record<string, unknown>) }
  for (const [field, value] of Object.entries(gone.changes))
    if (field in seen && JSON.stringify(seen[field]) === JSON.stringify(value))
      seen[field] = (gone.seen as Record<string, unknown>)[field]
  mark(later, { what: { ...later.what, seen } as Outgoing })
}

/** A later value for a field that is being asked about belongs to the question; what is left to be sent beside it. */
function besideClash(c: Change): Change | undefined {
  if (!('changes' in c.what)) return c
  const mine = c.what
  const asked = changes.value.find(
    (k) =>
      k.state === 'clash' &&
      thingOf(k.what) === thingOf(mine) &&
      Object.keys(mine.changes).some((f) => f in (k.what as Editing).changes),
  )
  if (!asked) return c
  const what = asked.what as Editing
  const isQuestioned = (f: string) => f in what.changes
  mark(asked, {
    what: { ...what, changes: { ...what.changes, ...only(mine, isQuestioned)?.changes } } as Outgoing,
  })
  const rest = only(mine, (f) => !isQuestioned(f))
  if (rest) return mark(c, { what: rest })
  void remove(c)
  return undefined
}

/** A refusal goes back to the field that is waiting for it, and is shown there; no one waiting, it stays in the queue. */
function hand(c: Change) {
  const waiting = outcomes.get(c.id)
  if (!waiting || !c.problem) return
  outcomes.delete(c.id)
  if (waiting.inPlace() && c.state === 'refused') {
    inPlace.add(c.id)
    // The fields see that it was refused before it is gone, so that they keep what was typed.
    if (waiting.stands) changes.value = [...changes.value]
    else notifyManager.schedule(() => void remove(c))
  }
  waiting.reject(new Refusal(c.problem, c.id))
}
