import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import { api, Refusal, type Schemas, taken } from '@/shared/api/client'

export type Sewn = Schemas['Sewn']
export type Tried = Schemas['Tried']
export type Asked = Schemas['Asked']
export type Symptom = Schemas['Symptom']

const again = (n: number, e: Error) => !(e instanceof Refusal) && n < 100

export const useSewn = (
  block: MaybeRefOrGetter<string>,
  factor: MaybeRefOrGetter<number>,
  tried: MaybeRefOrGetter<string>,
) =>
  useQuery(
    computed(() => ({
      queryKey: ['sewn', toValue(block), toValue(factor), toValue(tried)],
      queryFn: () =>
        taken(
          api.GET('/api/blocks/{key}/sewn', {
            params: {
              path: { key: toValue(block) },
              query: { factor: toValue(factor), tried: toValue(tried) },
            },
          }),
        ),
      retry: again,
      placeholderData: keepPreviousData,
    })),
  )

export const useWhatIf = (
  block: MaybeRefOrGetter<string>,
  typed: MaybeRefOrGetter<{
    causes: Record<string, number>
    factor: number
    scatter: number
    blocks: number
  }>,
) =>
  useQuery(
    computed(() => ({
      queryKey: ['what-if', toValue(block), toValue(typed)],
      queryFn: () =>
        taken(
          api.POST('/api/blocks/{key}/what-if', {
            params: { path: { key: toValue(block) } },
            body: toValue(typed),
          }),
        ),
      retry: again,
      placeholderData: keepPreviousData,
    })),
  )

export const useSymptoms = () =>
  useQuery({ queryKey: ['symptoms'], queryFn: () => taken(api.GET('/api/symptoms')), staleTime: Infinity })

export const byHand = (body: Schemas['ByHandRequest']) => taken(api.POST('/api/diagnosis', { body }))

/** Pasted lines go straight to the server and are not sent twice by themselves. */
export const takeLines = (block: string, text: string) =>
  taken(api.POST('/api/blocks/{key}/measured.csv', { params: { path: { key: block } }, body: { text } }))
