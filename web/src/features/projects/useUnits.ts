import { type MaybeRefOrGetter, toValue } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import type { PlannedUnit, Project } from '@/shared/api/client'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'
import { kindWords } from '@/shared/words/words'

/** Adding, copying and removing the units of a project; removing can be undone. */
export function useUnits(project: MaybeRefOrGetter<Project>) {
  const { send, sent } = useOutbox()
  const router = useRouter()
  const route = useRoute()
  const undo = useUndo()
  const id = () => toValue(project).id

  async function add(of: string, copyOf?: string) {
    const unit = crypto.randomUUID()
    await sent({ kind: 'add_unit', project: id(), unit, of, copyOf })
    await router.push({ name: 'plan', params: { project: id(), unit } })
  }

  async function remove(unit: PlannedUnit) {
    const others = toValue(project).units.filter((u) => u.id !== unit.id)
    send({ kind: 'delete_unit', project: id(), unit: unit.id })
    const next = others[0]
    if (route.params.unit === unit.id)
      await router.push(
        next
          ? { name: route.name ?? 'plan', params: { project: id(), unit: next.id } }
          : { name: 'standing', params: { project: id() } },
      )
    undo(`${kindWords[unit.kind]?.name ?? 'The unit'} was removed.`, () => {
      send({ kind: 'restore_unit', project: id(), unit: unit.id })
    })
  }

  return { add, remove }
}
