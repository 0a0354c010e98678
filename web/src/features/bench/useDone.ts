import { useMessage } from 'naive-ui'
import { computed, ref } from 'vue'

import { Refusal, type Schemas } from '@/shared/api/client'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox, useWaiting } from '@/shared/offline/outbox'

type Subject = Schemas['DoneRequest']['subject']
type Done = readonly { step: string; keys: readonly string[] }[]

/**
 * What is put down at the bench. Everything has a name of its own, so that taking it back takes back that and nothing that
 * somebody at another tablet put down; what the server does not have yet is shown as done already.
 */
export function useDone(project: () => string, subject: Subject, of: () => string | null) {
  const waiting = useWaiting()
  const { send, tried } = useOutbox()
  const message = useMessage()
  const undo = useUndo()

  const put = computed(() =>
    waiting.value.filter(
      (o) => o.kind === 'put_done' && o.project === project() && o.body.subject === subject,
    ),
  )
  const back = computed(() => {
    const names = new Set<string>()
    for (const o of waiting.value) if (o.kind === 'take_back') names.add(o.done)
    return names
  })

  /** The names under which a step of a lot is done, those on their way among them. */
  function namesOf(lot: number, step: string, done: Done): string[] {
    const known = done.find((d) => d.step === step)?.keys ?? []
    const coming = put.value.flatMap((o) =>
      o.kind === 'put_done' && o.body.of === of() && o.body.lot === lot && o.body.step === step
        ? [o.done]
        : [],
    )
    return [...new Set([...known, ...coming])].filter((k) => !back.value.has(k))
  }
  const isDone = (lot: number, step: string, done: Done) => namesOf(lot, step, done).length > 0

  async function deliver(
    told: Partial<Schemas['DoneRequest']> & Pick<Schemas['DoneRequest'], 'stage'>,
  ): Promise<string | undefined> {
    const done = crypto.randomUUID()
    const body = { subject, of: of(), lot: 1, step: '', count: 0, why: '' as const, note: '', ...told }
    try {
      await tried({ kind: 'put_done', project: project(), done, body })
      return done
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      message.error(error.problem.errors[0]?.message ?? error.message, { duration: 9000, closable: true })
      return undefined
    }
  }

  const putStep = (lot: number, step: string, stage: Schemas['DoneRequest']['stage']) =>
    deliver({ stage, lot, step })

  function takeBack(lot: number, step: string, done: Done) {
    for (const name of namesOf(lot, step, done)) send({ kind: 'take_back', project: project(), done: name })
  }

  const toggle = (lot: number, step: string, stage: Schemas['DoneRequest']['stage'], done: Done) =>
    isDone(lot, step, done) ? takeBack(lot, step, done) : void putStep(lot, step, stage)

  /** The units last put down as spoiled here, of which one may say why. */
  const spoiled = ref('')

  /** Units trimmed or spoiled, with the way back. */
  async function count(stage: 'trimmed' | 'spoiled', n: number, said: string) {
    const done = await deliver({ stage, count: n })
    if (!done) return
    if (stage === 'spoiled') spoiled.value = done
    undo(said, () => {
      send({ kind: 'take_back', project: project(), done })
      if (spoiled.value === done) spoiled.value = ''
    })
  }

  function sayWhy(why: Schemas['WhyPatchRequest']['why']) {
    send({ kind: 'say_why', project: project(), done: spoiled.value, changes: { why }, seen: {} })
    spoiled.value = ''
  }

  /** What is counted and not with the server yet. */
  const coming = (stage: 'trimmed' | 'spoiled') =>
    put.value.reduce(
      (n, o) =>
        o.kind === 'put_done' && o.body.of === of() && o.body.stage === stage && !back.value.has(o.done)
          ? n + o.body.count
          : n,
      0,
    )

  return { isDone, toggle, putStep, takeBack, count, coming, spoiled, sayWhy }
}
