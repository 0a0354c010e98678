import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import { api, Refusal, taken } from '@/shared/api/client'

export const useCheck = (unit: MaybeRefOrGetter<string>) =>
  useQuery(
    computed(() => ({
      queryKey: ['check', toValue(unit)],
      queryFn: () => taken(api.GET('/api/units/{key}/check', { params: { path: { key: toValue(unit) } } })),
      retry: (n: number, e: Error) => !(e instanceof Refusal) && n < 100,
    })),
  )

/** Pasted lines go straight to the server and are not sent twice by themselves. */
export function useImport(unit: MaybeRefOrGetter<string>) {
  const client = useQueryClient()
  return useMutation({
    networkMode: 'always',
    mutationFn: (text: string) =>
      taken(
        api.POST('/api/units/{key}/readings.csv', {
          params: { path: { key: toValue(unit) } },
          body: { text },
        }),
      ),
    onSuccess: () => {
      void client.invalidateQueries({ queryKey: ['check', toValue(unit)] })
      void client.invalidateQueries({ queryKey: ['diagnosis', toValue(unit)] })
    },
  })
}
