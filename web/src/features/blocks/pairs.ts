import type { Project } from '@/shared/api/client'

/** A matched pair: its two fabrics' letters, and the blocks there are of it, as typed. */
export interface Pair {
  first: string
  second: string
  blocks: string
}

/** Pairs as rows, from blocks by the two letters of a pair. */
export const pairsOf = (stock: Record<string, string | number> | undefined): Pair[] =>
  Object.entries(stock ?? {})
    .filter(([p]) => p.length === 2)
    .map(([p, blocks]) => ({ first: p[0]!, second: p[1]!, blocks: String(blocks) }))

/** Blocks by the two letters of a pair; a pair that stands in two rows counts with both. */
export function blocksOf(pairs: readonly Pair[]): Record<string, string> {
  const found: Record<string, string> = {}
  for (const p of pairs) {
    const key = p.first + p.second
    const before = found[key]
    found[key] =
      before === undefined || !Number(before) ? p.blocks : String(Number(before) + (Number(p.blocks) || 0))
  }
  return found
}

/** A scrap by the names of its fabrics. */
export const nameOf = (project: Project, scrap: string) =>
  [...scrap].map((r) => project.fabrics.find((f) => f.role === r)?.name ?? r.toUpperCase()).join(' with ')
