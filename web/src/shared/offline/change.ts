import type { Problem } from '@/shared/api/client'

import type { Outgoing } from './outgoing'

/** One change on its way to the server, as it is kept. */
export interface Change {
  /** Its place in the queue; given by storage, so that all windows agree. */
  seq?: number
  /** Its name: the server makes a change of one name once. */
  id: string
  what: Outgoing
  state: 'waiting' | 'refused' | 'clash'
  /** Why the server would not take it. */
  problem?: Problem
  /** The page on which it was typed. */
  from?: string
  tries: number
  /** When it was typed, and when it may be tried again, in milliseconds. */
  born: number
  notBefore: number
}

/** A change to fields, with what was seen in them. */
export type Editing = Extract<Outgoing, { changes: unknown }>

/** The narrower before what it belongs to. */
const own = [
  'done',
  'time',
  'free',
  'blade',
  'calendar',
  'photo',
  'entry',
  'reading',
  'test',
  'set_up',
  'day',
  'saved',
  'stock',
  'shelved',
  'library',
  'ruler',
  'unit',
  'fabric',
  'block',
] as const

/** What a change is to, by name: a unit, a fabric, a project as a whole. */
export function thingOf(o: Outgoing): string {
  if (o.kind === 'change_quilt' || o.kind.endsWith('scraps'))
    return `quilt ${(o as { project: string }).project}`
  if (o.kind === 'tick_strip' || o.kind === 'mark_cut' || o.kind === 'undo_cutting')
    return `cutting ${o.project}`
  if (o.kind === 'change_pile' || o.kind === 'keep_over' || o.kind === 'put_triangles_by')
    return `pile ${o.project} ${o.letter}`
  if (o.kind === 'put_top_measured') return `top ${o.project} ${o.place}`
  if (o.kind === 'change_handling') return `handling ${o.unit}`
  if (o.kind === 'change_schedule') return `schedule ${o.project}`
  if (o.kind === 'put_busy_day' || o.kind === 'delete_busy_day') return `evening ${o.on}`
  for (const name of own) if (name in o) return `${name} ${(o as unknown as Record<string, string>)[name]}`
  return 'project' in o ? `project ${o.project}` : 'workroom'
}

/** Changes to a thing that is there already, and stays there. */
const within = /^(change_|put_top_|edit_|tick_|mark_|undo_|keep_over|put_triangles_by|take_up_)/

/**
 * Whether a change has to wait for another that is kept back: to the same thing, or one that makes or removes what it
 * belongs to. A name or a tick that is kept back holds nothing else.
 */
export function hangsOn(later: Outgoing, earlier: Outgoing): boolean {
  if (thingOf(later) === thingOf(earlier)) return true
  if (within.test(earlier.kind)) return false
  const above = thingOf(earlier).split(' ')[1]
  return above !== undefined && (Object.values(later) as unknown[]).includes(above)
}
