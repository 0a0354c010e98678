import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import { api, type Schemas, taken } from '@/shared/api/client'

export type WorkStage = Schemas['ClockRequest']['stage']

export const useClock = () =>
  useQuery({ queryKey: ['clock'], queryFn: () => taken(api.GET('/api/times/running')) })

export const useProjectTime = (project: MaybeRefOrGetter<string>) =>
  useQuery(
    computed(() => ({
      queryKey: ['project-time', toValue(project)],
      queryFn: () =>
        taken(api.GET('/api/projects/{key}/time', { params: { path: { key: toValue(project) } } })),
      placeholderData: keepPreviousData,
    })),
  )
