import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import { api, type Schemas, taken } from '@/shared/api/client'

export type SetUp = Schemas['SetUp']
export type SeamTest = Schemas['SeamTest']
export type Habit = Schemas['Habit']
export type Hands = Schemas['Hands']
export type LotSheet = Schemas['LotSheet']
export type Watching = LotSheet['kind']

export const useRecords = () =>
  useQuery({ queryKey: ['records'], queryFn: () => taken(api.GET('/api/records')) })

export const useHands = () =>
  useQuery({ queryKey: ['hands'], queryFn: () => taken(api.GET('/api/records/hands')) })

export const useKeptDiagnoses = () =>
  useQuery({ queryKey: ['kept-diagnoses'], queryFn: () => taken(api.GET('/api/records/diagnoses')) })

export interface Foretelling {
  finished: string
  school: 'exact' | 'little' | 'generous' | 'records'
}

export const useForecasts = (asked: MaybeRefOrGetter<Foretelling>) =>
  useQuery(
    computed(() => ({
      queryKey: ['forecasts', toValue(asked)],
      queryFn: () => taken(api.GET('/api/records/forecasts', { params: { query: toValue(asked) } })),
      placeholderData: keepPreviousData,
      // Worked out a part at a time.
      refetchInterval: ({ state }: { state: { data?: { left: number } } }) => (state.data?.left ? 50 : false),
      retry: false,
    })),
  )

export const useForecast = (key: MaybeRefOrGetter<string>, asked: MaybeRefOrGetter<Foretelling>) =>
  useQuery(
    computed(() => ({
      queryKey: ['forecasts', toValue(key), toValue(asked)],
      queryFn: () =>
        taken(
          api.GET('/api/records/forecasts/{key}', {
            params: { path: { key: toValue(key) }, query: toValue(asked) },
          }),
        ),
      enabled: !!toValue(key),
      retry: false,
    })),
  )

export const useLot = (
  unit: MaybeRefOrGetter<string>,
  asked: MaybeRefOrGetter<{ kind: 'stitch' | 'raw_width' | 'width' | 'height'; lot: number; units: number }>,
) =>
  useQuery(
    computed(() => ({
      queryKey: ['lot', toValue(unit), toValue(asked)],
      queryFn: () =>
        taken(
          api.GET('/api/units/{key}/lot', {
            params: { path: { key: toValue(unit) }, query: toValue(asked) },
          }),
        ),
      placeholderData: keepPreviousData,
    })),
  )

/** Pasted lines go straight to the server and are not sent twice by themselves. */
export const takeTests = (text: string) => taken(api.POST('/api/records/tests.csv', { body: { text } }))
