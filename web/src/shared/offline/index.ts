import type { QueryClient } from '@tanstack/vue-query'

import { openAnswers } from './answers'
import { openQueue } from './queue'
import { openStore } from './store'
import { openDrafts } from './typed'

/** Before the first page is drawn: what this browser keeps is read back, and what the server lacks is sent. */
export async function openOffline(): Promise<QueryClient> {
  await openStore()
  await openDrafts()
  const client = openAnswers()
  await openQueue(client)
  return client
}
