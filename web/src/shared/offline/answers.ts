import { QueryClient } from '@tanstack/vue-query'

import { ServerAway } from '@/shared/api/client'

import { forgetOldAnswers, readOne, write } from './store'

const mostKept = 200
const soon = 400

/** The query client: what the server last said is kept in this browser, and shown when it cannot be asked. */
export function openAnswers(): QueryClient {
  const client: QueryClient = new QueryClient({
    defaultOptions: {
      queries: {
        // An answer is replaced, never changed: its thousands of lengths and marks need no watching one by one.
        shallow: true,
        staleTime: 5_000,
        networkMode: 'offlineFirst',
        retry: (n, e) => e instanceof ServerAway && n < 100,
        retryDelay: 500,
        refetchOnReconnect: 'always',
        persister: async (ask, context, query) => {
          try {
            return await ask(context)
          } catch (error) {
            const kept = error instanceof ServerAway ? await readOne('answers', query.queryHash) : undefined
            if (!kept || query.state.data !== undefined) throw error
            return kept.data as Awaited<ReturnType<typeof ask>>
          }
        },
      },
    },
  })
  const waiting = new Map<string, ReturnType<typeof setTimeout>>()
  client.getQueryCache().subscribe((event) => {
    if (event.type !== 'updated' || event.action.type !== 'success') return
    const { queryHash } = event.query
    clearTimeout(waiting.get(queryHash))
    waiting.set(
      queryHash,
      setTimeout(() => {
        waiting.delete(queryHash)
        const { data } = event.query.state
        if (data !== undefined) void write('answers', { key: queryHash, data, at: Date.now() }, 'relaxed')
      }, soon),
    )
  })
  void forgetOldAnswers(mostKept).catch(() => undefined)
  return client
}
