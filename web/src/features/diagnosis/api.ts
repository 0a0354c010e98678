import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import { api, Refusal, type Schemas, taken } from '@/shared/api/client'
import type { Of } from '@/shared/offline/outgoing'

export type Diagnosis = Schemas['Diagnosis']
export type Tried = Schemas['Tried']
export type Asked = Schemas['Asked']
export type Symptom = Schemas['Symptom']

const again = (n: number, e: Error) => !(e instanceof Refusal) && n < 100

export const useDiagnosis = (
  of: MaybeRefOrGetter<Of>,
  factor: MaybeRefOrGetter<number>,
  tried: MaybeRefOrGetter<string>,
) =>
  useQuery(
    computed(() => ({
      queryKey: ['diagnosis', toValue(of).subject, toValue(of).of, toValue(factor), toValue(tried)],
      queryFn: () =>
        taken(
          api.GET('/api/{subject}/{key}/diagnosis', {
            params: {
              path: { subject: toValue(of).subject, key: toValue(of).of },
              query: { factor: toValue(factor), tried: toValue(tried) },
            },
          }),
        ),
      retry: again,
      placeholderData: keepPreviousData,
    })),
  )

/** How it was worked out: of a block or a kind of unit, or of what was typed by hand. Asked for once it is opened. */
export const useWorking = (
  of: MaybeRefOrGetter<Of | Schemas['ByHandRequest']>,
  opened: MaybeRefOrGetter<boolean>,
) =>
  useQuery(
    computed(() => {
      const asked = toValue(of)
      return {
        queryKey: ['working', asked],
        queryFn: () =>
          'subject' in asked
            ? taken(
                api.GET('/api/{subject}/{key}/diagnosis/working', {
                  params: { path: { subject: asked.subject, key: asked.of } },
                }),
              )
            : taken(api.POST('/api/diagnosis/working', { body: asked })),
        enabled: toValue(opened),
        retry: again,
        placeholderData: keepPreviousData,
      }
    }),
  )

export const useWhatIf = (
  block: MaybeRefOrGetter<string>,
  typed: MaybeRefOrGetter<{
    causes: Record<string, number>
    factor: number
    scatter: number
    blocks: number
  }>,
  enabled: MaybeRefOrGetter<boolean> = true,
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
      enabled: toValue(enabled),
      retry: again,
      placeholderData: keepPreviousData,
    })),
  )

export const useSymptoms = () =>
  useQuery({ queryKey: ['symptoms'], queryFn: () => taken(api.GET('/api/symptoms')), staleTime: Infinity })

export const byHand = (body: Schemas['ByHandRequest']) => taken(api.POST('/api/diagnosis', { body }))

/** Pasted lines go straight to the server and are not sent twice by themselves. */
export const takeLines = (of: Of, text: string) =>
  taken(
    api.POST('/api/{subject}/{key}/readings.csv', {
      params: { path: { subject: of.subject, key: of.of } },
      body: { text },
    }),
  )
