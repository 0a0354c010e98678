import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'

import { Refusal, ServerAway } from '@/shared/api/client'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'

import type { SavedBlock, Sheet } from './api'

/** A centre laid anew by rule in place of the one there was, and the way back to it. Refusals stand beside the fields named. */
export function useLaidAnew(project: () => string, sheet: () => Sheet, fields: string[]) {
  const client = useQueryClient()
  const { sent } = useOutbox()
  const undo = useUndo()
  const working = ref(false)
  const problems = ref<Record<string, string>>({})

  async function lay(ask: () => Promise<Sheet>, said: string): Promise<boolean> {
    const { blocks, quilt } = sheet()
    const before = blocks.find((b) => b.part === 'centre')
    const counted = blocks.filter((b) => !b.part)
    working.value = true
    try {
      client.setQueryData(['blocks', project()], await ask())
      for (const rest of ['project', 'counts', 'cutting', 'buying', 'standing'])
        void client.invalidateQueries({ queryKey: [rest] })
      problems.value = {}
      undo(said, () => void back(before, quilt.setting, counted))
      return true
    } catch (e) {
      if (!(e instanceof Refusal || e instanceof ServerAway)) throw e
      const refused =
        e instanceof Refusal && e.problem.errors.length
          ? e.problem.errors
          : [{ field: '', message: e.message }]
      problems.value = Object.fromEntries(
        refused.map((x) => [fields.includes(x.field) ? x.field : 'other', x.message]),
      )
      return false
    } finally {
      working.value = false
    }
  }

  /** What was laid before, or the setting there was with its numbers of blocks, one after the other: laid by hand they follow the centre. */
  async function back(before: SavedBlock | undefined, was: Sheet['quilt']['setting'], counted: SavedBlock[]) {
    if (before) {
      const changes = { pattern: before.view.pattern, finished: before.finished.text }
      await sent({ kind: 'put_block', project: project(), block: before.id, changes, seen: {} })
    }
    if (was === 'by_hand') return
    await sent({ kind: 'change_quilt', project: project(), changes: { setting: was }, seen: {} })
    for (const b of counted)
      await sent({
        kind: 'put_block',
        project: project(),
        block: b.id,
        changes: { colourways: b.colourways.map((w) => ({ ...w, count: String(w.count) })) },
        seen: {},
      })
  }

  return { lay, working, problems }
}
