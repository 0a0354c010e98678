import { keepPreviousData, onlineManager, useQuery } from '@tanstack/vue-query'
import { useDebounceFn, useLocalStorage, watchDebounced } from '@vueuse/core'
import { computed, reactive, type Ref, ref, shallowRef, watch } from 'vue'

import { api, type PlannedUnit, type Project, Refusal, type Schemas, taken } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'

import { asked, cutsOf, type Draft, isCut, keptDraft, projectFields, unitFields } from './draft'

/**
 * What is typed on the Plan screen. Every choice is planned by the core as it is typed, and saved once the
 * core can read it; what it cannot read stays typed here, through reloads too, until it is put right.
 */
export function usePlanDraft(project: Ref<Project>, unit: Ref<PlannedUnit>) {
  const { send } = useOutbox()
  const unsaved = useLocalStorage<Draft>(`entretoile.draft.${unit.value.id}`, {})
  const draft = reactive<Draft>({ ...keptDraft(project.value, unit.value), ...unsaved.value })
  const base = reactive<Draft>(keptDraft(project.value, unit.value))
  const fieldsOf = (...drafts: Draft[]) => [...new Set(drafts.flatMap((d) => Object.keys(d)))]

  // What another window, or our own save, changed: fields not being typed in follow it.
  watch([project, unit], () => {
    const now = keptDraft(project.value, unit.value)
    for (const f of fieldsOf(now, base, draft)) {
      const kept = now[f] ?? ''
      if ((draft[f] ?? '') === (base[f] ?? '')) draft[f] = kept
      base[f] = kept
      if (draft[f] === kept) delete unsaved.value[f]
    }
  })

  const question = ref<Draft>({ ...draft })
  watchDebounced(draft, () => (question.value = { ...draft }), { debounce: 90 })

  const plan = useQuery(
    computed(() => ({
      queryKey: ['plan', question.value],
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        taken(api.POST('/api/plan', { body: asked(question.value), signal })),
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

  const dirty = () => fieldsOf(draft, base).filter((f) => (draft[f] ?? '') !== (base[f] ?? ''))
  const pick = (fields: string[], among: readonly string[], from: Draft) =>
    Object.fromEntries(fields.filter((f) => among.includes(f)).map((f) => [f, from[f] ?? '']))

  function save() {
    const fields = dirty().filter((f) => !problems.value[f])
    const toProject = pick(fields, projectFields, draft)
    const toUnit = pick(fields, unitFields, draft)
    const seenProject = pick(fields, projectFields, base)
    const seenUnit = pick(fields, unitFields, base)
    const cuts = fields.some(isCut)
    const ids = { project: project.value.id, unit: unit.value.id }
    const change = cuts ? { ...toUnit, cuts: cutsOf(draft) } : toUnit
    const seen = cuts ? { ...seenUnit, cuts: cutsOf(base) } : seenUnit
    for (const f of fields) base[f] = draft[f] ?? ''
    if (Object.keys(toProject).length)
      send({ kind: 'change_project', project: ids.project, changes: toProject, seen: seenProject })
    if (Object.keys(change).length) send({ kind: 'change_unit', ...ids, changes: change, seen })
  }

  /** What is typed means the measure it was typed in: it is saved first, and comes back told in the other one. */
  function measureIn(measure: string) {
    save()
    const changes = { measure } as Schemas['ProjectPatchRequest']
    const seen = { measure: base.measure } as Schemas['ProjectPatchRequest']
    send({ kind: 'change_project', project: project.value.id, changes, seen })
  }

  /** Another kind of unit brings its own usual parts, ways and sizes, which the server knows. */
  function become(kind: string) {
    save()
    const ids = { project: project.value.id, unit: unit.value.id }
    const changes = { kind } as Schemas['UnitPatchRequest']
    const seen = { kind: base.kind } as Schemas['UnitPatchRequest']
    send({ kind: 'change_unit', ...ids, changes, seen })
  }

  /** Sizes that are cut belong to the way they were cut for. */
  function makeBy(method: string) {
    draft.method = method
    for (const f of Object.keys(draft)) if (isCut(f)) draft[f] = ''
  }

  const settled = () =>
    JSON.stringify(question.value) === JSON.stringify(draft) && (plan.isSuccess.value || plan.isError.value)
  const saveSoon = useDebounceFn(() => {
    if (!dirty().length) return
    if (!onlineManager.isOnline() || (settled() && !plan.isFetching.value)) save()
    else void saveSoon()
  }, 350)

  watch(draft, () => {
    for (const f of dirty()) unsaved.value[f] = draft[f] ?? ''
    void saveSoon()
  })

  /** The last plan there was; it stays in sight, marked as old, while something typed cannot be read. */
  const last = shallowRef(plan.data.value)
  watch(plan.data, (now) => {
    if (now) last.value = now
  })
  const old = computed(() => plan.isError.value && !!last.value?.plan)
  return { draft, last, old, problems, measureIn, become, makeBy }
}
