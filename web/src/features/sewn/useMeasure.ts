import { computed, type Ref, ref, watch } from 'vue'

import { Refusal } from '@/shared/api/client'
import { useOutbox } from '@/shared/api/outbox'
import { sewnReadingWords } from '@/shared/lib/words'

import type { Asked, Sewn } from './api'

export interface Where {
  kind: string
  batch: number
  cell: number
  corner: string
  seam: number
  spot: string
  feature: string
}
const nowhere = (): Where => ({
  kind: 'width',
  batch: 0,
  cell: -1,
  corner: '',
  seam: -1,
  spot: 'middle',
  feature: '',
})

/** What is being measured and where, what is typed, and what the last Enter came to. */
export function useMeasure(block: Ref<string>, places: Ref<Sewn['places'] | undefined>) {
  const { tried } = useOutbox()
  const where = ref<Where>(nowhere())
  const value = ref('')
  const whole = ref('')
  const day = ref('')
  const problem = ref('')

  const on = computed(() => sewnReadingWords[where.value.kind]?.on ?? 'unit')
  const features = computed(() => places.value?.features.filter((f) => f.kind === where.value.kind) ?? [])
  const kinds = computed(() => {
    const p = places.value
    if (!p) return []
    const has = (kind: string) => {
      const to = sewnReadingWords[kind]?.on
      if (to === 'feature') return p.features.some((f) => f.kind === kind)
      if (to === 'tip') return p.batches.some((b) => b.tips)
      if (to === 'corner') return p.batches.some((b) => b.corners)
      if (['cut', 'raw_width', 'raw_height'].includes(kind)) return p.batches.some((b) => !b.plain)
      return true
    }
    return Object.keys(sewnReadingWords).filter(has)
  })
  const cells = computed(() => {
    const p = places.value
    if (!p) return []
    if (on.value === 'corner') return p.cells.filter((c) => c.corners.length)
    if (on.value === 'tip') return p.cells.filter((c) => c.tips.length)
    return p.cells
  })
  const corners = computed(
    () => places.value?.cells.find((c) => c.number === where.value.cell)?.corners ?? [],
  )

  /** Changing the kind keeps the place where the new kind can be read, and else goes to the first one that has it. */
  watch(
    () => [where.value.kind, where.value.cell] as const,
    () => {
      const w = where.value
      if (on.value === 'feature' && !features.value.some((f) => f.key === w.feature))
        w.feature = features.value[0]?.key ?? ''
      if (on.value === 'corner') {
        if (!cells.value.some((c) => c.number === w.cell)) w.cell = cells.value[0]?.number ?? -1
        if (!corners.value.includes(w.corner)) w.corner = corners.value[0] ?? ''
      }
      if (on.value === 'tip' && !cells.value.some((c) => c.number === w.cell))
        w.cell = cells.value[0]?.number ?? -1
    },
  )

  function pick(change: Partial<Where>) {
    where.value = { ...where.value, ...change }
    problem.value = ''
  }

  function ask(a: Asked) {
    where.value = {
      kind: a.kind,
      batch: a.batch,
      cell: a.cell,
      corner: a.corner,
      seam: a.seam,
      spot: a.spot || 'middle',
      feature: a.feature,
    }
  }

  function changes(): Record<string, string> {
    const w = where.value
    const typed: Record<string, string> = { kind: w.kind }
    if (on.value !== 'seen') typed.value = value.value
    if (w.kind === 'strip_test') typed.whole = whole.value
    if (['unit', 'corner', 'tip'].includes(on.value)) {
      typed.cell = String(w.cell)
      if (w.cell < 0) typed.batch = String(w.batch)
    }
    if (on.value === 'corner') typed.corner = w.corner
    if (on.value === 'seam') {
      typed.seam = String(w.seam)
      typed.spot = w.spot
    }
    if (on.value === 'feature') typed.feature = w.feature
    if (day.value && ['seam', 'none'].includes(on.value)) typed.day = day.value
    return typed
  }

  async function enter() {
    if (on.value !== 'seen' && !value.value.trim()) return
    const typed = changes()
    problem.value = ''
    try {
      await tried({
        kind: 'put_measured',
        block: block.value,
        measured: crypto.randomUUID(),
        changes: typed,
        seen: {},
      })
      value.value = ''
      whole.value = ''
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      problem.value = error.problem.errors[0]?.message ?? error.message
    }
  }

  return { where, value, whole, day, problem, on, kinds, features, cells, corners, pick, ask, enter }
}
