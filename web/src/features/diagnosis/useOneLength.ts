import { computed } from 'vue'

import { useFields } from '@/shared/offline/fields'
import { useOutbox } from '@/shared/offline/outbox'
import type { Outgoing } from '@/shared/offline/outgoing'
import type { editOf, Over } from '@/shared/offline/typed'

/** One length in a field of its own, kept when one leaves it; `outgoing` says what is sent, `problem` why it was refused. */
export function useOneLength(
  kept: () => string,
  over: Over,
  outgoing: (edit: ReturnType<typeof editOf>) => Outgoing,
) {
  const { typedIn } = useOutbox()
  const fields = useFields(
    () => ({ value: kept() }),
    over,
    (edit) => typedIn(outgoing(edit)),
  )
  const problem = computed(() => fields.problems.value ?? '')
  return { typed: fields.typed, problem, save: () => fields.save('value') }
}
