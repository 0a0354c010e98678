import { useQuery } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import { api, Refusal, taken } from '@/shared/api/client'

export const useDiagnosis = (unit: MaybeRefOrGetter<string>) =>
  useQuery(
    computed(() => ({
      queryKey: ['diagnosis', toValue(unit)],
      queryFn: () =>
        taken(api.GET('/api/units/{key}/diagnosis', { params: { path: { key: toValue(unit) } } })),
      retry: (n: number, e: Error) => !(e instanceof Refusal) && n < 100,
    })),
  )
