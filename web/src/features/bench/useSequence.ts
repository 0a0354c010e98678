import { computed } from 'vue'

import type { Schemas } from '@/shared/api/client'

import { useBlockBench, useQuiltBench, useUnitBench } from './api'

type Stage = Schemas['DoneRequest']['stage']

/** One thing to do: a step of a lot; or units to trim, counted down. */
export interface Task {
  id: string
  lot: number
  step: string
  stage: Stage
  title: string
  /** Of which lot it is, and how often it is done; its number in the lot. */
  where: string
  n: number
  cautions: readonly string[]
  said: readonly string[]
  look: readonly string[]
  size?: { width: Schemas['Length']; height: Schemas['Length'] }
  front?: Schemas['Drawing'] | null
  back?: Schemas['Drawing'] | null
  done: Schemas['Lot']['done']
}

/** Everything to do at one subject in the order of the work. */
export function useSequence(project: () => string, subject: () => string, of: () => string | null) {
  const unit = useUnitBench(() => (subject() === 'units' ? (of() ?? undefined) : undefined))
  const block = useBlockBench(() => (subject() === 'blocks' ? (of() ?? undefined) : undefined))
  const quilt = useQuiltBench(() => (subject() === 'quilt' ? project() : undefined))

  const ofUnit = computed<Task[]>(() =>
    (unit.data.value?.runs ?? []).flatMap((run) =>
      run.lots.flatMap((lot) =>
        run.steps.map((s, n) => ({
          n: n + 1,
          cautions: s.cautions,
          id: `${lot.number} ${s.key}`,
          lot: lot.number,
          step: s.key,
          stage: s.stage,
          title: s.title,
          where: `Lot ${lot.number}, ${lot.units} units${s.times * lot.goes > 1 ? `: ${s.times * lot.goes} times` : ''}${
            lot.wind && s === run.steps[0] ? '. Wind a bobbin first' : ''
          }`,
          said: s.said,
          look: s.look,
          front: s.front,
          back: s.back,
          done: lot.done,
        })),
      ),
    ),
  )
  const ofBlock = computed<Task[]>(() =>
    (block.data.value?.lots ?? []).flatMap((lot) =>
      (block.data.value?.steps ?? []).map((s, n) => ({
        n: n + 1,
        cautions: s.cautions,
        id: `${lot.number} ${s.key}`,
        lot: lot.number,
        step: s.key,
        stage: s.stage,
        title: s.stage === 'press' ? `Press: ${s.title}` : s.title,
        where: `Block ${lot.number} of ${block.data.value?.lots.length}${s.times > 1 ? `: ${s.times} times` : ''}`,
        said: n ? s.said : [...(block.data.value?.colourways ?? []), ...s.said],
        look: s.look,
        size: s.stage === 'join' ? { width: s.width, height: s.height } : undefined,
        front: s.stage === 'press' && s.back ? s.back : s.front,
        back: s.stage === 'press' ? null : s.back,
        done: lot.done,
      })),
    ),
  )
  const ofQuilt = computed<Task[]>(() =>
    (quilt.data.value?.steps ?? []).map((s, n) => ({
      n: n + 1,
      cautions: quilt.data.value?.cautions ?? [],
      id: `1 ${s.key}`,
      lot: 1,
      step: s.key,
      stage: 'join',
      title: s.title,
      where: 'The quilt',
      said: s.said,
      look: s.look,
      size: { width: s.width, height: s.height },
      front: quilt.data.value?.picture,
      done: quilt.data.value?.done ?? [],
    })),
  )
  const tasks = computed(() =>
    subject() === 'units' ? ofUnit.value : subject() === 'blocks' ? ofBlock.value : ofQuilt.value,
  )
  const title = computed(
    () => unit.data.value?.title ?? block.data.value?.name ?? (quilt.data.value ? 'The quilt' : ''),
  )
  const tally = computed(() => (subject() === 'units' ? unit.data.value?.tally : undefined))
  const error = computed(() => unit.error.value ?? block.error.value ?? quilt.error.value)
  const ready = computed(() => !!(unit.data.value ?? block.data.value ?? quilt.data.value))
  const trimCautions = computed(() => unit.data.value?.trim_cautions ?? [])
  const trimTo = computed(
    () =>
      unit.data.value && {
        picture: unit.data.value.picture,
        width: unit.data.value.trim_width,
        height: unit.data.value.trim_height,
      },
  )
  return { tasks, title, tally, trimTo, trimCautions, error, ready }
}
