import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import { api, type Schemas, taken } from '@/shared/api/client'

export type LogRow = Schemas['LogRow']
export type LogKind = LogRow['kind']

export interface Asked {
  q: string
  project: string
  kind: LogKind | ''
  page: number
}

export const useLog = (asked: MaybeRefOrGetter<Asked>) =>
  useQuery(
    computed(() => ({
      queryKey: ['log', toValue(asked)],
      queryFn: () => {
        const { q, project, kind, page } = toValue(asked)
        const query = { q, kind, page, ...(project ? { project } : {}) }
        return taken(api.GET('/api/log', { params: { query } }))
      },
      placeholderData: keepPreviousData,
    })),
  )

export const useStory = (project: MaybeRefOrGetter<string>) =>
  useQuery(
    computed(() => ({
      queryKey: ['story', toValue(project)],
      queryFn: () =>
        taken(api.GET('/api/projects/{key}/story', { params: { path: { key: toValue(project) } } })),
    })),
  )

/** What a trial piece of a unit is asked for. */
export const useTrial = (unit: MaybeRefOrGetter<string>) =>
  useQuery(
    computed(() => ({
      queryKey: ['plan', 'trial', toValue(unit)],
      queryFn: () => taken(api.GET('/api/units/{key}/trial', { params: { path: { key: toValue(unit) } } })),
      enabled: !!toValue(unit),
      retry: false,
    })),
  )
