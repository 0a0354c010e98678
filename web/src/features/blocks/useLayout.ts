import { useDebounceFn, useLocalStorage, watchDebounced } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'

import { Refusal } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'

import { look, type Pattern, type SavedBlock, type View } from './api'

interface Step {
  view: View
  finished: string
}
export type Edit = Record<string, unknown> & { do: string }

/**
 * A block under the hands: every change is made by the core, in the order asked for, and saved as one goes.
 * Undo and redo step through what the core answered.
 */
export function useLayout(project: () => string, block: () => SavedBlock) {
  const { send } = useOutbox()
  const view = shallowRef<View>(block().view)
  const finished = ref(block().finished.text)
  const past = shallowRef<Step[]>([])
  const coming = shallowRef<Step[]>([])
  const problems = ref<Record<string, string>>({})
  const working = ref(0)
  const unsaved = useLocalStorage<Partial<{ pattern: Pattern; finished: string }>>(
    `entretoile.draft.${block().id}`,
    {},
  )
  let saved = { pattern: block().view.pattern as Pattern, finished: block().finished.text }
  let good = finished.value
  let queue: Promise<unknown> = Promise.resolve()

  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)

  function save() {
    const changes: Record<string, unknown> = {}
    const seen: Record<string, unknown> = {}
    if (!same(view.value.pattern, saved.pattern)) {
      changes.pattern = view.value.pattern
      seen.pattern = saved.pattern
    }
    if (good !== saved.finished) {
      changes.finished = good
      seen.finished = saved.finished
    }
    unsaved.value = {}
    if (!Object.keys(changes).length) return
    saved = { pattern: view.value.pattern as Pattern, finished: good }
    send({ kind: 'put_block', project: project(), block: block().id, changes, seen })
  }
  const sendSoon = useDebounceFn(save, 350)
  /** Kept in this browser at once, so that a page closed in between loses nothing. */
  function saveSoon() {
    unsaved.value = { pattern: view.value.pattern as Pattern, finished: good }
    void sendSoon()
  }
  onBeforeUnmount(save)

  function show(step: Step) {
    view.value = step.view
    finished.value = good = step.finished
    problems.value = {}
    saveSoon()
  }

  async function asked(edit: Edit | null, size: string, pattern?: Pattern) {
    const from: Step = { view: view.value, finished: good }
    try {
      const next = await look(project(), {
        block: block().id,
        pattern: pattern ?? from.view.pattern,
        finished: size,
        edit,
      })
      if (!same(next.pattern, from.view.pattern) || size !== good) {
        past.value = [...past.value.slice(-199), from]
        coming.value = []
      }
      good = size
      view.value = next
      problems.value = {}
      saveSoon()
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      const field = error.problem.errors[0]?.field ?? ''
      problems.value = { [['finished', 'columns', 'rows'].includes(field) ? field : 'layout']: error.message }
    } finally {
      working.value--
    }
  }

  function change(edit: Edit | null, size = good) {
    working.value++
    queue = queue.then(() => asked(edit, size)).catch(() => undefined)
    return queue
  }

  // What an earlier page could not send any more is taken up again.
  const left = { ...unsaved.value }
  if (left.pattern && left.finished) {
    working.value++
    queue = queue.then(() => asked(null, left.finished!, left.pattern)).catch(() => undefined)
  }

  watchDebounced(finished, (size) => size !== good && change(null, size), { debounce: 120 })

  function undo() {
    const last = past.value.at(-1)
    if (!last) return
    past.value = past.value.slice(0, -1)
    coming.value = [...coming.value, { view: view.value, finished: good }]
    show(last)
  }

  function redo() {
    const next = coming.value.at(-1)
    if (!next) return
    coming.value = coming.value.slice(0, -1)
    past.value = [...past.value, { view: view.value, finished: good }]
    show(next)
  }

  // What another window saved is taken over while nothing is being changed here.
  watch(block, (now) => {
    const mine = !same(view.value.pattern, saved.pattern) || good !== saved.finished
    if (mine || working.value) return
    if (same(now.view.pattern, saved.pattern) && now.finished.text === saved.finished) {
      view.value = now.view
      return
    }
    saved = { pattern: now.view.pattern as Pattern, finished: now.finished.text }
    view.value = now.view
    finished.value = good = now.finished.text
  })

  return {
    view,
    finished,
    problems,
    change,
    undo,
    redo,
    canUndo: computed(() => past.value.length > 0),
    canRedo: computed(() => coming.value.length > 0),
  }
}
