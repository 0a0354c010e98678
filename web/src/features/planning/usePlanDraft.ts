import { keepPreviousData, onlineManager, useQuery } from '@tanstack/vue-query'
import { useDebounceFn, useLocalStorage, watchDebounced } from '@vueuse/core'
import { computed, reactive, type Ref, ref, shallowRef, watch } from 'vue'

import { api, type PlannedUnit, type Project, Refusal, type Schemas, taken } from '@/shared/api/client'
import { useOutbox } from '@/shared/api/outbox'

const projectFields = ['measure', 'seam_allowance', 'stitch', 'fold', 'ruler_step'] as const
const unitFields = [
  'size_basis',
  'finished',
  'block_finished',
  'units_across',
  'count',
  'school',
  'own_margin',
  'cut',
] as const

type ProjectField = (typeof projectFields)[number]
type UnitField = (typeof unitFields)[number]
export type Field = ProjectField | UnitField
export type Draft = Record<Field, string>

const text = (v: unknown): string =>
  v === null || v === undefined ? '' : typeof v === 'object' && 'text' in v ? String(v.text) : String(v)

function kept(project: Project, unit: PlannedUnit): Draft {
  const draft = {} as Draft
  for (const f of projectFields) draft[f] = text(project[f])
  for (const f of unitFields) draft[f] = text(unit[f])
  return draft
}

/**
 * What is typed on the Plan screen. Every choice is planned by the core as it is typed, and saved once the
 * core can read it; what it cannot read stays typed here, through reloads too, until it is put right.
 */
export function usePlanDraft(project: Ref<Project>, unit: Ref<PlannedUnit>) {
  const { send } = useOutbox()
  const unsaved = useLocalStorage<Partial<Draft>>(`entretoile.draft.${unit.value.id}`, {})
  const draft = reactive<Draft>({ ...kept(project.value, unit.value), ...unsaved.value })
  const base = reactive<Draft>(kept(project.value, unit.value))

  // What another window, or our own save, changed: fields not being typed in follow it.
  watch([project, unit], () => {
    const now = kept(project.value, unit.value)
    for (const f of Object.keys(now) as Field[]) {
      if (draft[f] === base[f]) draft[f] = now[f]
      base[f] = now[f]
      if (draft[f] === now[f]) delete unsaved.value[f]
    }
  })

  const asked = ref<Draft>({ ...draft })
  watchDebounced(draft, () => (asked.value = { ...draft }), { debounce: 90 })

  const plan = useQuery(
    computed(() => ({
      queryKey: ['plan', asked.value],
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        taken(
          api.POST('/api/plan', { body: asked.value as unknown as Schemas['PlanRequestRequest'], signal }),
        ),
      placeholderData: keepPreviousData,
      retry: false,
      gcTime: 30_000,
    })),
  )

  const problems = computed<Record<string, string>>(() => {
    const found: Record<string, string> = {}
    if (plan.error.value instanceof Refusal)
      for (const e of plan.error.value.problem.errors) found[e.field || 'finished'] = e.message
    const refusal = plan.error.value ? null : plan.data.value?.refusal
    if (refusal) found[refusal.field] = refusal.message
    return found
  })

  const dirty = () => (Object.keys(draft) as Field[]).filter((f) => draft[f] !== base[f])

  function save() {
    const fields = dirty().filter((f) => !problems.value[f])
    const pick = (among: readonly Field[], from: Draft) =>
      Object.fromEntries(fields.filter((f) => among.includes(f)).map((f) => [f, from[f]]))
    const toProject = pick(projectFields, draft)
    const toUnit = pick(unitFields, draft)
    const seenProject = pick(projectFields, base)
    const seenUnit = pick(unitFields, base)
    for (const f of fields) base[f] = draft[f]
    const ids = { project: project.value.id, unit: unit.value.id }
    if (Object.keys(toProject).length)
      send({ kind: 'change_project', project: ids.project, changes: toProject, seen: seenProject })
    if (Object.keys(toUnit).length) send({ kind: 'change_unit', ...ids, changes: toUnit, seen: seenUnit })
  }

  /** What is typed means the measure it was typed in: it is saved first, and comes back told in the other one. */
  function measureIn(measure: string) {
    save()
    send({
      kind: 'change_project',
      project: project.value.id,
      changes: { measure },
      seen: { measure: base.measure },
    })
  }

  const settled = () =>
    JSON.stringify(asked.value) === JSON.stringify(draft) && (plan.isSuccess.value || plan.isError.value)
  const saveSoon = useDebounceFn(() => {
    if (!dirty().length) return
    if (!onlineManager.isOnline() || (settled() && !plan.isFetching.value)) save()
    else void saveSoon()
  }, 350)

  watch(draft, () => {
    for (const f of dirty()) unsaved.value[f] = draft[f]
    void saveSoon()
  })

  /** The last plan there was; it stays in sight, marked as old, while something typed cannot be read. */
  const last = shallowRef(plan.data.value)
  watch(plan.data, (now) => {
    if (now) last.value = now
  })
  const old = computed(() => plan.isError.value && !!last.value?.plan)
  return { draft, last, old, problems, measureIn }
}
