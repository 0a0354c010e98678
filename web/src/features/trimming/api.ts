import { useQuery } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import { api, Refusal, taken } from '@/shared/api/client'

export const useTrim = (unit: MaybeRefOrGetter<string>) =>
  useQuery(
    computed(() => ({
      queryKey: ['trim', toValue(unit)],
      queryFn: () => taken(api.GET('/api/units/{key}/trim', { params: { path: { key: toValue(unit) } } })),
      retry: (n: number, e: Error) => !(e instanceof Refusal) && n < 100,
    })),
  )
