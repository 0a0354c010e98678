import { computed } from 'vue'

import type { PlannedUnit, Project } from '@/shared/api/client'
import type { Of } from '@/shared/offline/outgoing'
import { kindWords } from '@/shared/words/words'

export interface SubjectProps {
  project: Project
  unit?: PlannedUnit
  block?: { id: string; view: { name: string } }
  colours: Record<string, string>
}

/** A block where one is in hand, else the unit; with its name. */
export function useSubject(props: SubjectProps) {
  const of = computed<Of>(() =>
    props.block ? { subject: 'blocks', of: props.block.id } : { subject: 'units', of: props.unit?.id ?? '' },
  )
  const name = computed(() => props.block?.view.name ?? kindWords[props.unit?.kind ?? '']?.name ?? '')
  return { of, name }
}
