import type { PlannedUnit, Project, Schemas } from '@/shared/api/client'

export const projectFields = ['seam_allowance', 'stitch', 'fold', 'ruler_step'] as const
export const unitFields = [
  'kind',
  'method',
  'size_basis',
  'finished',
  'height',
  'block_finished',
  'units_across',
  'part_fabrics',
  'corner_0',
  'corner_1',
  'corner_2',
  'corner_3',
  'strip',
  'count',
  'mirrored',
  'ready',
  'school',
  'own_margin',
] as const satisfies readonly (keyof Schemas['UnitPatchRequest'])[]
type Left = Exclude<keyof Schemas['UnitPatchRequest'], (typeof unitFields)[number] | 'cuts'>
/** Does not compile when the server's unit has a field that is not listed here. */
export const allFieldsListed: [Left] extends [never] ? true : Left = true
const cutPrefix = 'cuts.'

/** What is typed, by field; sizes that are cut already by `cuts.large` and the like. */
export type Draft = Record<string, string>

const text = (v: unknown): string =>
  v === null || v === undefined
    ? ''
    : Array.isArray(v)
      ? v.join('')
      : typeof v === 'object' && 'text' in v
        ? String(v.text)
        : String(v)

/** Some fields of a change, as they would be typed. */
export const pickText = (from: Record<string, unknown>, fields: readonly string[]): Draft =>
  Object.fromEntries(fields.filter((f) => f in from).map((f) => [f, text(from[f])]))

/** Sizes that are cut, each as a field. */
export const cutsAsFields = (cuts: unknown): Draft =>
  Object.fromEntries(
    Object.entries((cuts ?? {}) as Record<string, unknown>).map(([name, size]) => [
      cutPrefix + name,
      text(size),
    ]),
  )

/** What the server keeps, as it would be typed. */
export function keptDraft(project: Project, unit: PlannedUnit): Draft {
  const draft: Draft = { measure: project.measure }
  for (const f of projectFields) draft[f] = text(project[f])
  for (const f of unitFields) draft[f] = text(unit[f])
  for (const [name, size] of Object.entries(unit.cuts)) draft[cutPrefix + name] = size.text
  return draft
}

export const isCut = (field: string) => field.startsWith(cutPrefix)

/** The sizes that are cut, by name; empty ones left out. */
export const cutsOf = (draft: Draft) =>
  Object.fromEntries(
    Object.entries(draft)
      .filter(([f, v]) => isCut(f) && v.trim())
      .map(([f, v]) => [f.slice(cutPrefix.length), v]),
  )

/** A draft as the core is asked for its plan. */
export function planRequest(draft: Draft, fabrics: Project['fabrics'] = []): Schemas['PlanRequestRequest'] {
  const { part_fabrics, ...rest } = draft
  const plain = Object.fromEntries(Object.entries(rest).filter(([f]) => !isCut(f)))
  return {
    ...plain,
    part_fabrics: [...(part_fabrics ?? '')],
    cuts: cutsOf(draft),
    names: Object.fromEntries(fabrics.map((f) => [f.role, f.name])),
  } as unknown as Schemas['PlanRequestRequest']
}
