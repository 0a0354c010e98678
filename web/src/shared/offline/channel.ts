import type { Change } from './change'

/** What windows of one browser tell each other of the queue. */
export type Told =
  | { type: 'added'; change: Change }
  | { type: 'made'; id: string; data: unknown }
  | { type: 'marked'; change: Change }
  | { type: 'gone'; id: string }

const channel = new BroadcastChannel('entretoile.queue')

export const tell = (told: Told) => channel.postMessage(JSON.parse(JSON.stringify(told)) as Told)

export const listen = (hear: (told: Told) => void) =>
  channel.addEventListener('message', (e: MessageEvent<Told>) => hear(e.data))
