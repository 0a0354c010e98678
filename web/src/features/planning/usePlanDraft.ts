import { keepPreviousData, onlineManager, useQuery } from '@tanstack/vue-query'
import { useDebounceFn } from '@vueuse/core'
import { computed, type Ref, ref, watch } from 'vue'

import { api, type PlannedUnit, type Project, Refusal, type Schemas, taken } from '@/shared/api/client'
import { lastOf } from '@/shared/api/lastOf'
import { useOutbox } from '@/shared/offline/outbox'
import { editOf, useDraft, onLeaving, useTyped } from '@/shared/offline/typed'

import {
  planRequest,
  cutsAsFields,
  cutsOf,
  type Draft,
  isCut,
  keptDraft,
  pickText,
  projectFields,
  unitFields,
} from './draft'

/**
 * What is typed on the Plan screen. Every choice is planned by the core as it is typed, and saved once the
 * core can read it; what it cannot read stays typed here, through reloads too, until it is put right.
 */
export function usePlanDraft(project: Ref<Project>, unit: Ref<PlannedUnit>) {
  const { send } = useOutbox()
  const { draft: unsaved, keepDraft } = useDraft(`unit ${unit.value.id}`)
  const {
    typed: draft,
    base,
    dirty,
    refused,
  } = useTyped<Draft>(
    () => keptDraft(project.value, unit.value),
    { thing: () => `project ${project.value.id}`, flat: (c) => pickText(c, [...projectFields, 'measure']) },
    {
      thing: () => `unit ${unit.value.id}`,
      flat: (c) => ({ ...pickText(c, unitFields), ...cutsAsFields(c.cuts) }),
    },
  )
  Object.assign(draft, unsaved)

  const question = ref<Draft>({ ...draft })
  // Asked at every key; a question that is overtaken is dropped.
  watch(draft, () => (question.value = { ...draft }))

  const plan = useQuery(
    computed(() => ({
      queryKey: ['plan', planRequest(question.value, project.value.fabrics)],
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        taken(api.POST('/api/plan', { body: planRequest(question.value, project.value.fabrics), signal })),
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

  function save() {
    const fields = dirty().filter((f) => !problems.value[f] && !refused(f))
    const among = (known: readonly string[]) => fields.filter((f) => known.includes(f))
    const toProject = editOf(among(projectFields), draft, base.value)
    const toUnit = editOf(among(unitFields), draft, base.value)
    const ids = { project: project.value.id, unit: unit.value.id }
    if (fields.some(isCut)) {
      Object.assign(toUnit.changes, { cuts: cutsOf(draft) })
      Object.assign(toUnit.seen, { cuts: cutsOf(base.value) })
    }
    if (Object.keys(toProject.changes).length)
      send({ kind: 'change_project', project: ids.project, ...toProject })
    if (Object.keys(toUnit.changes).length) send({ kind: 'change_unit', ...ids, ...toUnit })
  }

  /** What is typed means the measure it was typed in: it is saved first, and comes back told in the other one. */
  function measureIn(measure: string) {
    save()
    const changes = { measure } as Schemas['ProjectPatchRequest']
    const seen = { measure: base.value.measure } as Schemas['ProjectPatchRequest']
    send({ kind: 'change_project', project: project.value.id, changes, seen })
  }

  /** Another kind of unit brings its own usual parts, ways and sizes, which the server knows. */
  function become(kind: string) {
    save()
    const ids = { project: project.value.id, unit: unit.value.id }
    const changes = { kind } as Schemas['UnitPatchRequest']
    const seen = { kind: base.value.kind } as Schemas['UnitPatchRequest']
    send({ kind: 'change_unit', ...ids, changes, seen })
  }

  /** Sizes that are cut belong to the way they were cut for. */
  function makeBy(method: string) {
    draft.method = method
    for (const f of Object.keys(draft)) if (isCut(f)) draft[f] = ''
  }

  const isSettled = () =>
    JSON.stringify(question.value) === JSON.stringify(draft) && (plan.isSuccess.value || plan.isError.value)
  let left = false
  const saveSoon = useDebounceFn(() => {
    if (left || !dirty().length) return
    if (!onlineManager.isOnline() || (isSettled() && !plan.isFetching.value)) save()
    else void saveSoon()
  }, 350)

  // What could not be handed over yet is kept in this browser; it is gone from there once it is on its way.
  watch([draft, base], () => {
    keepDraft(Object.fromEntries(dirty().map((f) => [f, draft[f] ?? ''])))
    void saveSoon()
  })
  onLeaving(() => {
    left = true
    save()
  })
  if (dirty().length) void saveSoon()

  const last = lastOf(plan.data)
  const old = computed(() => plan.isError.value && !!last.value?.plan)
  return { draft, last, old, problems, measureIn, become, makeBy }
}
