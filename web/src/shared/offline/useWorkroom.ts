import { useQuery } from '@tanstack/vue-query'

import { api, taken } from '@/shared/api/client'

import { useFields } from './fields'
import { useOutbox } from './outbox'
import { onLeaving } from './typed'

const text = (v: unknown) => (v && typeof v === 'object' && 'text' in v ? String(v.text) : String(v ?? ''))

/** Some of the settings of the workroom, as texts that are typed; what is typed goes out when its page is left. */
export function useWorkroom<F extends string>(...fields: F[]) {
  const { data } = useQuery({ queryKey: ['workroom'], queryFn: () => taken(api.GET('/api/workroom')) })
  const { typedIn } = useOutbox()
  const { typed, dirty, problems, save } = useFields(
    () =>
      Object.fromEntries(
        fields.map((f) => [f, text((data.value as Record<string, unknown> | undefined)?.[f])]),
      ) as Record<F, string>,
    { thing: () => 'workroom' },
    (edit) => typedIn({ kind: 'change_workroom', ...edit }),
  )
  const keep = async () => void (data.value && (await save(...fields)))
  onLeaving(() => void keep())
  return { data, typed, dirty, problems, keep }
}
