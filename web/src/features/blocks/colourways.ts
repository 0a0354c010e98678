import type { SavedBlock } from './api'

/** A colourway as it stands in its fields: how many of the block, and the fabric of each role that has another. */
export type Way = { count: string; roles: Record<string, string> }

export const waysOf = (block: SavedBlock): Way[] =>
  block.colourways.map((w) => ({ count: String(w.count), roles: { ...w.roles } }))
