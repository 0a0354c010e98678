import { type MaybeRefOrGetter, toValue } from 'vue'
import { useRouter } from 'vue-router'

import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'

import type { SavedBlock } from './api'

/** Beginning, copying and removing blocks of a project; removing can be undone. */
export function useBlocks(project: MaybeRefOrGetter<string>) {
  const { send, sent } = useOutbox()
  const router = useRouter()
  const undo = useUndo()
  const id = () => toValue(project)

  async function begin(start: string, changes: Record<string, unknown> = {}) {
    const block = crypto.randomUUID()
    await sent({ kind: 'put_block', project: id(), block, start, changes, seen: {} })
    await router.push({ name: 'lay', params: { project: id(), block } })
  }

  const copy = (b: SavedBlock) =>
    begin('', { pattern: b.view.pattern, finished: b.finished.text, colourways: b.colourways })

  async function remove(b: SavedBlock) {
    await router.push({ name: 'blocks', params: { project: id() } })
    send({ kind: 'delete_block', project: id(), block: b.id })
    undo(`${b.view.name} was removed.`, () => {
      send({ kind: 'restore_block', project: id(), block: b.id })
    })
  }

  return { begin, copy, remove }
}
