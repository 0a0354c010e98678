import type { Schemas } from '@/shared/api/client'

/** Fabric roles to colours. */
export const coloursOf = (fabrics: Pick<Schemas['Fabric'], 'role' | 'colour'>[]) =>
  Object.fromEntries(fabrics.map((f) => [f.role, f.colour]))

/** Colours for pictures of kinds that belong to no project yet. */
export const plainColours: Record<string, string> = {
  a: '#155e68',
  b: '#e6edef',
  c: '#f0b429',
  d: '#a8261c',
  e: '#9fb0b6',
}

const valueGreys: Record<string, string> = { light: '#eceff0', medium: '#8b989d', dark: '#20292d' }

/** Fabric roles to greys, by their value: how a block reads without its colours. */
export const greys = (fabrics: Schemas['Fabric'][]) =>
  Object.fromEntries(fabrics.map((f) => [f.role, valueGreys[f.value] ?? '#8b989d']))
