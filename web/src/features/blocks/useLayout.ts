import { computed, ref, shallowRef, toRef, watch } from 'vue'

import { Refusal } from '@/shared/api/client'
import type { Outgoing } from '@/shared/offline/outgoing'
import { useOutbox } from '@/shared/offline/outbox'
import { useDraft, onLeaving, useTyped } from '@/shared/offline/typed'

import type { SavedBlock } from './api'

interface Step {
  pattern: unknown
  finished: string
}
export type Edit = Extract<Outgoing, { kind: 'edit_block' }>['edit']

/** What may be insisted on: the refusal, and the word in the change that says so. */
const insistences = { unit_bent: 'bent', tracks_do_not_add_up: 'grows' } as const

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)

/**
 * A block under the hands. Every change goes through the queue and is made by the core on the block as it then is, in
 * the order in which it was asked for. Undo and redo put back the layouts that these changes came from.
 */
export function useLayout(project: () => string, block: () => SavedBlock) {
  const { tried } = useOutbox()
  const thing = { project: project(), block: block().id }
  const { draft, keepDraft } = useDraft(`block ${thing.block}`)
  const view = computed(() => block().view)
  const { typed, base, dirty } = useTyped(() => ({ finished: block().finished.text }), {
    thing: () => `block ${thing.block}`,
    flat: ({ finished: size }) => (size === undefined ? {} : { finished: size }),
  })
  Object.assign(typed, draft)
  const finished = toRef(typed, 'finished')
  const past = shallowRef<Step[]>([])
  const coming = shallowRef<Step[]>([])
  const problems = ref<Record<string, string>>({})
  /** A change that was refused and can be asked for all the same, by what it was refused for. */
  const insisted = ref<Partial<Record<keyof typeof insistences, Edit>>>({})
  const now = (): Step => ({ pattern: view.value.pattern, finished: block().finished.text })

  /** Hands a change over; true when it was made, and else its reason stands where it was asked for. */
  async function make(o: Outgoing, field: string): Promise<boolean> {
    try {
      await tried(o)
      problems.value = {}
      insisted.value = {}
      return true
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      const { code, errors } = error.problem
      if (code === 'changed_elsewhere') return false
      const at = errors[0]?.field ?? ''
      const why = errors[0]?.code as keyof typeof insistences
      insisted.value =
        o.kind === 'edit_block' && why in insistences
          ? { [why]: { ...o.edit, [insistences[why]]: true } }
          : {}
      problems.value = { [['finished', 'columns', 'rows'].includes(at) ? at : field]: error.message }
      return false
    }
  }

  // What there was before the change that is answered next.
  let before = now()
  let open = 0
  watch([view, () => block().finished.text], () => {
    if (!open) before = now()
  })

  async function record(o: Outgoing, field: string) {
    open++
    const done = await make(o, field)
    open--
    const [from, to] = [before, now()]
    before = to
    if (!done || same(from, to)) return
    past.value = [...past.value.slice(-199), from]
    coming.value = []
  }

  let behind: Promise<unknown> = Promise.resolve()
  /** One after another, so that each knows the layout it came from. */
  function inTurn(act: () => Promise<unknown>) {
    behind = behind.then(act, act)
    return behind
  }

  const change = (edit: Edit) => record({ kind: 'edit_block', ...thing, edit }, 'layout')

  /** A size is kept once the core can read it; what it cannot read stays typed here. */
  let asked = ''
  function resize() {
    if (!dirty().length || asked === finished.value) return
    asked = finished.value
    const changes = { finished: finished.value }
    const seen = { finished: base.value.finished }
    void record({ kind: 'put_block', ...thing, changes, seen }, 'finished')
  }
  watch(finished, resize)
  watch([finished, base], () => {
    if (!dirty().length) asked = ''
    keepDraft(dirty().length ? { finished: finished.value } : {})
  })
  onLeaving(resize)
  resize()

  /** Back or forth by one: what is there now waits on the other side. */
  async function go(from: typeof past, to: typeof past) {
    const step = from.value.at(-1)
    if (!step) return
    const here = now()
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, here]
    asked = finished.value = step.finished
    const changes = { pattern: step.pattern, finished: step.finished } as Record<string, unknown>
    await make(
      { kind: 'put_block', ...thing, changes, seen: { ...here } as Record<string, unknown> },
      'layout',
    )
  }

  return {
    view,
    finished,
    problems,
    insisted,
    change,
    undo: () => void inTurn(() => go(past, coming)),
    redo: () => void inTurn(() => go(coming, past)),
    canUndo: computed(() => past.value.length > 0),
    canRedo: computed(() => coming.value.length > 0),
  }
}
