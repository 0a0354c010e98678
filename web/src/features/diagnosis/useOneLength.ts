import { ref } from 'vue'

import { Refusal } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'
import type { Outgoing } from '@/shared/offline/outgoing'
import { editOf, type Over, useTyped } from '@/shared/offline/typed'

type Edit = ReturnType<typeof editOf>

/** One length in a field of its own, kept when one leaves it; `outgoing` says what is sent, `problem` why it was refused. */
export function useOneLength(kept: () => string, over: Over, outgoing: (edit: Edit) => Outgoing) {
  const { tried } = useOutbox()
  const problem = ref('')
  const { typed, base, refused } = useTyped(() => ({ value: kept() }), over)

  async function save() {
    if (refused('value')) return
    problem.value = ''
    if (typed.value.trim() === base.value.value) return
    try {
      await tried(outgoing(editOf(['value'], typed, base.value)))
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      problem.value = error.problem.errors[0]?.message ?? error.message
    }
  }
  return { typed, problem, save }
}
