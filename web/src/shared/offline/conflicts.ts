import type { QueryClient } from '@tanstack/vue-query'
import { reactive, shallowRef } from 'vue'

import { Refusal } from '@/shared/api/client'

import type { Outgoing } from './outgoing'

export interface Clash {
  outgoing: Extract<Outgoing, { changes: unknown }>
  fields: { field: string; here: string; mine: string }[]
}

/** Whose refusals are shown where they were typed; sent from an earlier page, they are shown on top like all others. */
export const inPlace = new WeakSet<Outgoing>()

/** Changes another window made first, waiting for a choice; and refusals of what was sent later. */
export const clash = shallowRef<Clash | null>(null)
export const refused = reactive<{ outgoing: Outgoing; refusal: Refusal }[]>([])

const shown = (value: unknown): string =>
  value === null || value === undefined
    ? ''
    : typeof value === 'object' && 'layout' in value
      ? (value.layout as string[]).join(' / ')
      : Array.isArray(value)
        ? value.map(shown).join(', ')
        : typeof value === 'object'
          ? Object.entries(value)
              .map(([name, size]) => `${name} ${shown(size)}`)
              .join(', ')
          : String(value)

/** A refusal beside its field, on top of the page, or as a choice between what is here and what another window wrote. */
export function refuse(client: QueryClient, o: Outgoing, error: Error) {
  if (!(error instanceof Refusal)) return
  if (error.problem.code === 'changed_elsewhere' && 'changes' in o) {
    const fields = error.problem.errors.map((e) => ({
      field: e.field,
      here: e.values.here ?? '',
      mine: shown((o.changes as Record<string, unknown>)[e.field]),
    }))
    clash.value = { outgoing: o, fields }
    if ('project' in o) void client.invalidateQueries({ queryKey: ['project', o.project] })
    return
  }
  if (!inPlace.has(o)) refused.push({ outgoing: o, refusal: error })
}
