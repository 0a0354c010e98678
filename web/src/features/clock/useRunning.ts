import { computed } from 'vue'

import { useOutbox, useWaiting } from '@/shared/offline/outbox'

import { useClock, type WorkStage } from './api'

/** The clock that runs, also one that was begun or stopped while the server was away. */
export function useRunning() {
  const { data } = useClock()
  const waiting = useWaiting()
  const { send } = useOutbox()

  const running = computed(() => {
    let found = data.value?.running
      ? {
          time: data.value.running.id,
          stage: data.value.running.stage,
          project: data.value.running.project,
          began: data.value.running.began,
        }
      : undefined
    for (const o of waiting.value) {
      if (o.kind === 'begin_clock') found = { time: o.time, stage: o.stage, project: o.project, began: o.at }
      if ((o.kind === 'stop_clock' || o.kind === 'delete_time') && o.time === found?.time) found = undefined
    }
    return found
  })

  const begin = (project: string, stage: WorkStage) =>
    send({ kind: 'begin_clock', time: crypto.randomUUID(), project, stage, at: new Date().toISOString() })
  const stop = () =>
    running.value && send({ kind: 'stop_clock', time: running.value.time, at: new Date().toISOString() })

  return { running, begin, stop }
}
