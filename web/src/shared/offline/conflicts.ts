import { computed } from 'vue'

import type { Change, Editing } from './change'
import { changes, inPlace } from './queue'

/** What another window changed first, field by field: theirs and mine, both kept until one is chosen. */
export interface Clash {
  change: Change
  fields: { field: string; here: string; mine: string }[]
}

const valueText = (value: unknown): string => {
  if (value === null || value === undefined) return ''
  if (Array.isArray(value)) return value.map(valueText).join(', ')
  if (typeof value !== 'object') return String(value)
  if ('layout' in value) return (value.layout as string[]).join(' / ')
  return Object.entries(value)
    .map(([name, part]) => `${name} ${valueText(part)}`)
    .join(', ')
}

function clashOf(change: Change): Clash {
  const mine = (change.what as Editing).changes as Record<string, unknown>
  const fields = (change.problem?.errors ?? []).map((e) => ({
    field: e.field,
    here: e.values.here ?? '',
    mine: valueText(mine[e.field]),
  }))
  return { change, fields }
}

/** All that is to be decided, oldest first. */
export const clashes = computed(() => changes.value.filter((c) => c.state === 'clash').map(clashOf))

/** What the server would not take, with its reason, until it is put away. */
export const refused = computed(() =>
  changes.value.filter((c) => c.state === 'refused' && !inPlace.has(c.id)),
)
