import { persistQueryClient } from '@tanstack/query-persist-client-core'
import { createSyncStoragePersister } from '@tanstack/query-sync-storage-persister'
import { MutationCache, QueryClient, useMutation, useMutationState } from '@tanstack/vue-query'
import { computed } from 'vue'

import { ServerAway } from '@/shared/api/client'

import { keep } from './cache'
import { inPlace, refuse } from './conflicts'
import { deliver } from './deliver'
import type { Outgoing } from './outgoing'

const isSend = (mutationKey?: readonly unknown[]) => mutationKey?.[0] === 'send'

/** The query client, its outbox read back from this browser and emptied as soon as the server answers. */
export function openOutbox(): QueryClient {
  const mutationCache: MutationCache = new MutationCache({
    onSuccess: (data, o, _c, m) => isSend(m.options.mutationKey) && keep(client, o as Outgoing, data),
    onError: (error, o, _c, m) => isSend(m.options.mutationKey) && refuse(client, o as Outgoing, error),
  })
  const client: QueryClient = new QueryClient({
    mutationCache,
    defaultOptions: {
      queries: { staleTime: 5_000, retry: (n, e) => e instanceof ServerAway && n < 100, retryDelay: 500 },
    },
  })
  client.setMutationDefaults(['send'], {
    mutationFn: (o: unknown) => deliver(o as Outgoing),
    scope: { id: 'outbox' },
    retry: (_n: number, e: Error) => e instanceof ServerAway,
    retryDelay: 300,
  })
  const persister = createSyncStoragePersister({
    storage: window.localStorage,
    key: 'entretoile.outbox',
    throttleTime: 0,
    // What was under way when the page went is sent again; the server takes a second copy as the same one.
    serialize: (kept) => {
      for (const m of kept.clientState.mutations) m.state.isPaused = true
      return JSON.stringify(kept)
    },
  })
  const [, restored] = persistQueryClient({
    // Same class; the Vue package only hides its private parts behind a type of its own.
    queryClient: client as unknown as Parameters<typeof persistQueryClient>[0]['queryClient'],
    persister,
    maxAge: Infinity,
    dehydrateOptions: {
      shouldDehydrateQuery: () => false,
      shouldDehydrateMutation: (m) => m.state.status === 'pending',
    },
  })
  void restored.then(() => client.resumePausedMutations())
  return client
}

/** Hand something over to be sent, now or when the server is back. */
export function useOutbox() {
  const { mutate, mutateAsync } = useMutation<unknown, Error, Outgoing>({ mutationKey: ['send'] })
  /** Sent; a refusal comes back to the caller, who shows it beside the field. */
  const tried = (o: Outgoing) => {
    inPlace.add(o)
    return mutateAsync(o)
  }
  return { send: (o: Outgoing) => mutate(o), sent: (o: Outgoing) => mutateAsync(o), tried }
}

/** What the server does not have yet. */
export function useWaiting() {
  const states = useMutationState<Outgoing>({
    filters: { mutationKey: ['send'], status: 'pending' },
    select: (m) => m.state.variables as Outgoing,
  })
  return computed(() => states.value)
}
