import { useSessionStorage } from '@vueuse/core'
import { computed, ref, type Ref } from 'vue'

import { Refusal, type Schemas } from '@/shared/api/client'
import { refused, useOutbox } from '@/shared/api/outbox'

export type Kind = Schemas['Target']['kind']

/** The quick entry: what is being measured, what is typed, and what the last Enter came to. */
export function useEntry(unit: Ref<string>, targets: Ref<Schemas['Target'][]>) {
  const { sent } = useOutbox()
  const kind = useSessionStorage<Kind>(`entretoile.kind.${unit.value}`, 'unit_width')
  const value = useSessionStorage(`entretoile.typing.${unit.value}`, '')
  const whole = ref('')
  const rowUnits = ref('')
  const problem = ref<{ field: string; message: string } | null>(null)

  const target = computed(() => targets.value.find((t) => t.kind === kind.value))
  const count = computed({
    get: () => rowUnits.value || String(targets.value.find((t) => t.kind === 'row_length')?.row_units ?? ''),
    set: (v) => (rowUnits.value = v),
  })

  function step(by: number) {
    const kinds = targets.value.map((t) => t.kind)
    const at = kinds.indexOf(kind.value)
    const next = kinds[(at + by + kinds.length) % kinds.length]
    if (next) kind.value = next
    problem.value = null
  }

  function changes() {
    const typed: Record<string, string> = { kind: kind.value, value: value.value }
    if (kind.value === 'row_length') typed.row_units = count.value
    if (kind.value === 'strip_test') typed.whole = whole.value
    return typed
  }

  /** Clears the field at once so that the next reading can be typed; gives the text back when it is refused. */
  async function enter() {
    if (!value.value.trim()) return
    const typed = changes()
    const reading = crypto.randomUUID()
    problem.value = null
    value.value = ''
    whole.value = ''
    try {
      await sent({ kind: 'put_reading', unit: unit.value, reading, changes: typed, seen: {} })
    } catch (error) {
      if (!(error instanceof Refusal) || value.value) return
      const at = refused.findIndex((r) => 'reading' in r.outgoing && r.outgoing.reading === reading)
      if (at >= 0) refused.splice(at, 1)
      value.value = typed.value ?? ''
      whole.value = typed.whole ?? ''
      const first = error.problem.errors[0]
      problem.value = { field: first?.field ?? 'value', message: first?.message ?? error.message }
    }
  }

  return { kind, value, whole, count, problem, target, step, enter }
}
