import { computed, type Ref, ref, toRef, watch } from 'vue'

import { Refusal } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'
import type { Of } from '@/shared/offline/outgoing'
import { useForm } from '@/shared/offline/typed'
import { readingWords } from '@/shared/words/words'

import type { Asked, Diagnosis } from './api'

export interface Where {
  kind: string
  batch: string
  at_unit: string
  corner: string
  seam: string
  spot: string
  feature: string
}
export const nowhere = (): Where => ({
  kind: 'width',
  batch: '',
  at_unit: '',
  corner: '',
  seam: '',
  spot: 'middle',
  feature: '',
})

/** Milliseconds for which what was refused must have been in sight before a key is struck, to have been read. */
const NOT_READ_YET = 1000

/** What is being measured and where, what is typed, and what the last Enter came to. */
export function useMeasure(of: Ref<Of>, places: Ref<Diagnosis['places'] | undefined>) {
  const { tried } = useOutbox()
  // What is half typed is there again after a reload, and just where it was being read.
  const { typed: half } = useForm(
    `reading ${of.value.subject} ${of.value.of}`,
    () => ({ value: '', whole: '', where: nowhere() }),
    'where',
  )
  const where = toRef(half, 'where')
  const value = toRef(half, 'value')
  const whole = toRef(half, 'whole')
  const count = ref('')
  const lands = ref('')
  const day = ref('')
  const problem = ref('')
  /** Readings entered so far: one that is refused after the next was entered does not come back into the field. */
  let entered = 0
  /** When what was refused came back into the field, until the first key that is struck there. */
  let backAt: number | undefined
  /** What was refused while the next reading was typed already: shown until it is left out. */
  const passed = ref<string[]>([])
  /** The reading that was entered last, to be asked about when the others do not bear it out. */
  const last = ref('')

  const on = computed(() => readingWords[where.value.kind]?.on ?? 'unit')
  const features = computed(() => places.value?.features.filter((f) => f.kind === where.value.kind) ?? [])
  const anyRow = computed(() => of.value.subject === 'units' && where.value.kind === 'row')
  const kinds = computed(() => places.value?.kinds ?? [])
  const cells = computed(() => {
    const p = places.value
    if (!p) return []
    if (on.value === 'corner') return p.cells.filter((c) => c.corners.length)
    if (on.value === 'tip') return p.cells.filter((c) => c.tips.length)
    return p.cells
  })
  const cell = computed(() => places.value?.cells.find((c) => c.key === where.value.at_unit))
  const corners = computed(() => cell.value?.corners ?? [])
  /** The tips of what is measured, where it has several of them. */
  const tips = computed(() => {
    if (on.value !== 'tip') return []
    const batch = places.value?.batches.find((b) => b.key === where.value.batch)
    const found = cell.value ? cell.value.tips : (batch?.tip_sides ?? [])
    return found.length > 1 ? found : []
  })
  const sides = computed(() => {
    if (on.value === 'corner')
      return corners.value.find((c) => c.corner === where.value.corner)?.landings ?? []
    if (on.value === 'feature')
      return features.value.find((f) => f.key === where.value.feature)?.landings ?? []
    return []
  })

  /** Changing the kind keeps the place where the new kind can be read, and else goes to the first one that has it. */
  watch(
    [() => where.value.kind, () => where.value.at_unit, () => where.value.batch, places],
    () => {
      const w = where.value
      if (!w.batch || !places.value?.batches.some((b) => b.key === w.batch))
        w.batch = places.value?.batches[0]?.key ?? ''
      if (on.value === 'feature' && !anyRow.value && !features.value.some((f) => f.key === w.feature))
        w.feature = (features.value.find((f) => f.key.includes('middle')) ?? features.value[0])?.key ?? ''
      if (on.value === 'corner') {
        if (!cells.value.some((c) => c.key === w.at_unit)) w.at_unit = cells.value[0]?.key ?? ''
        if (!corners.value.some((c) => c.corner === w.corner)) w.corner = corners.value[0]?.corner ?? ''
      }
      if (on.value === 'tip' && !tips.value.includes(w.corner)) w.corner = ''
      if (on.value === 'tip' && w.at_unit && !cells.value.some((c) => c.key === w.at_unit)) w.at_unit = ''
    },
    { immediate: true },
  )
  watch(sides, (now) => {
    if (!now.some((s) => s.code === lands.value)) lands.value = now[0]?.code ?? ''
  })

  // Nobody reads so fast: what came back was typed over, and not put right.
  watch(
    value,
    () => {
      if (backAt !== undefined && problem.value && Date.now() - backAt < NOT_READ_YET) {
        passed.value.push(problem.value)
        problem.value = ''
      }
      backAt = undefined
    },
    { flush: 'sync' },
  )

  function pick(change: Partial<Where>) {
    where.value = { ...where.value, ...change }
    problem.value = ''
  }

  function ask(a: Asked) {
    const { kind, batch, at_unit, corner, seam, feature } = a
    where.value = {
      kind,
      batch: batch || where.value.batch,
      at_unit,
      corner,
      seam,
      spot: a.spot || 'middle',
      feature,
    }
  }

  function changes(): Record<string, string> {
    const w = where.value
    const typed: Record<string, string> = { kind: w.kind }
    if (on.value !== 'seen') typed.value = value.value
    if (w.kind === 'strip_test') typed.whole = whole.value
    if (['unit', 'corner', 'tip'].includes(on.value)) {
      if (w.at_unit) typed.at_unit = w.at_unit
      else typed.batch = w.batch
    }
    if (on.value === 'corner' || tips.value.length) typed.corner = w.corner
    if (on.value === 'seam') {
      typed.seam = w.seam
      typed.spot = w.spot
    }
    if (anyRow.value) typed.count = count.value
    else if (on.value === 'feature') typed.feature = w.feature
    if (sides.value.length) typed.lands = lands.value
    if (day.value && ['seam', 'none'].includes(on.value)) typed.day = day.value
    return typed
  }

  /** Clears the field at once so that the next reading can be typed; gives the text back when it is refused. */
  async function enter() {
    if (on.value !== 'seen' && !value.value.trim()) return
    const typed = changes()
    const reading = crypto.randomUUID()
    const turn = ++entered
    const place = JSON.stringify(where.value)
    backAt = undefined
    problem.value = ''
    value.value = ''
    whole.value = ''
    try {
      await tried({ kind: 'put_reading', ...of.value, reading, changes: typed, seen: {} })
      last.value = reading
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      const why = error.problem.errors[0]?.message ?? error.message
      // Where the reason does not quote what was typed.
      const said = why.includes(`“${typed.value}”`) ? why : `${typed.value ?? ''}: ${why}`
      if (turn !== entered || value.value || JSON.stringify(where.value) !== place) {
        passed.value.push(said)
        return
      }
      problem.value = said
      value.value = typed.value ?? ''
      whole.value = typed.whole ?? ''
      backAt = Date.now()
    }
  }

  return {
    where,
    value,
    whole,
    count,
    lands,
    day,
    problem,
    passed,
    last,
    on,
    anyRow,
    kinds,
    features,
    cells,
    corners,
    tips,
    sides,
    pick,
    ask,
    enter,
  }
}
