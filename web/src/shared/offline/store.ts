import { type DBSchema, type IDBPDatabase, openDB } from 'idb'
import { ref } from 'vue'

import type { Change } from './change'

/** What this browser keeps: changes that the server does not have yet, texts it could not take, and what it last said. */
interface Kept extends DBSchema {
  changes: { key: number; value: Change }
  drafts: { key: string; value: { key: string; fields: Record<string, unknown> } }
  answers: { key: string; value: { key: string; data: unknown; at: number }; indexes: { at: number } }
}
type Room = 'changes' | 'drafts' | 'answers'

/**
 * Whether what is typed survives this page: `kept` once the browser's storage has taken a first entry, `full` or
 * `forbidden` when it has not. Said before one types; everything else works as long as the page stays open.
 */
export const storage = ref<'kept' | 'full' | 'forbidden'>('kept')

let db: IDBPDatabase<Kept> | undefined

export async function openStore(): Promise<void> {
  try {
    db = await openDB<Kept>('entretoile', 1, {
      upgrade(fresh) {
        fresh.createObjectStore('changes', { keyPath: 'seq', autoIncrement: true })
        fresh.createObjectStore('drafts', { keyPath: 'key' })
        fresh.createObjectStore('answers', { keyPath: 'key' }).createIndex('at', 'at')
      },
      // A newer page waits for this one to let go of the older layout.
      blocking: () => db?.close(),
    })
    await db.put('drafts', { key: 'probe', fields: {} })
  } catch (error) {
    refusedBy(error)
  }
}

function refusedBy(error: unknown) {
  storage.value = error instanceof DOMException && error.name === 'QuotaExceededError' ? 'full' : 'forbidden'
}

/** Everything in one room, in the order of its keys. */
export async function readAll<R extends Room>(room: R): Promise<Kept[R]['value'][]> {
  try {
    return (await db?.getAll(room)) ?? []
  } catch (error) {
    refusedBy(error)
    return []
  }
}

export async function readOne<R extends Room>(room: R, key: Kept[R]['key']) {
  return db?.get(room, key).catch(() => undefined)
}

/**
 * Written at once: the commit is asked for together with the entry, so that a page closed right after loses nothing.
 * Returns the key, or undefined when storage did not take it.
 */
export async function write<R extends Room>(
  room: R,
  value: Kept[R]['value'],
  durability: IDBTransactionDurability = 'strict',
) {
  try {
    if (!db) return undefined
    const tx = db.transaction(room, 'readwrite', { durability })
    const key = tx.store.put(value)
    tx.commit()
    await tx.done
    storage.value = 'kept'
    return await key
  } catch (error) {
    refusedBy(error)
    return undefined
  }
}

export async function erase<R extends Room>(room: R, key: Kept[R]['key']): Promise<void> {
  try {
    await db?.delete(room, key)
  } catch (error) {
    refusedBy(error)
  }
}

/** Keeps the newest answers only. */
export async function forgetOldAnswers(most: number): Promise<void> {
  if (!db) return
  const tx = db.transaction('answers', 'readwrite')
  let over = (await tx.store.count()) - most
  for (let c = await tx.store.index('at').openCursor(); c && over > 0; c = await c.continue(), over--)
    await c.delete()
  await tx.done
}
