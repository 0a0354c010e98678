import { useQuery } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import { api, type Schemas, taken } from '@/shared/api/client'

export type UnitBench = Schemas['UnitBench']
export type QuiltBench = Schemas['QuiltBench']
export type Lot = Schemas['Lot']
export type UnitStep = Schemas['UnitStep']
type Drawing = Schemas['Drawing']
/** A step with its drawings, which the server sends once for all steps. */
export type JoinStep = Omit<Schemas['JoinStep'], 'front' | 'back'> & { front: Drawing; back: Drawing | null }

const key = (k: string) => ({ params: { path: { key: k } } })
/** Somebody else may be at the same work with another tablet. */
const others = 20_000

export const useUnitBench = (unit: MaybeRefOrGetter<string | undefined>) =>
  useQuery(
    computed(() => ({
      queryKey: ['unit-bench', toValue(unit) ?? ''],
      queryFn: () => taken(api.GET('/api/units/{key}/bench', key(toValue(unit)!))),
      enabled: !!toValue(unit),
      refetchInterval: others,
      retry: false,
    })),
  )

const withPictures = (bench: Schemas['BlockBench']) => ({
  ...bench,
  steps: bench.steps.map((s): JoinStep => ({
    ...s,
    front: bench.drawings[s.front]!,
    back: s.back === null ? null : bench.drawings[s.back]!,
  })),
})

export const useBlockBench = (block: MaybeRefOrGetter<string | undefined>) =>
  useQuery(
    computed(() => ({
      queryKey: ['block-bench', toValue(block) ?? ''],
      queryFn: () => taken(api.GET('/api/blocks/{key}/bench', key(toValue(block)!))),
      select: withPictures,
      enabled: !!toValue(block),
      refetchInterval: others,
      retry: false,
    })),
  )

export const useQuiltBench = (project: MaybeRefOrGetter<string | undefined>) =>
  useQuery(
    computed(() => ({
      queryKey: ['quilt-bench', toValue(project) ?? ''],
      queryFn: () => taken(api.GET('/api/projects/{key}/bench/quilt', key(toValue(project)!))),
      enabled: !!toValue(project),
      refetchInterval: others,
    })),
  )
