import { computed, ref, type Ref } from 'vue'

import { type Spot, spotsOf, type View } from './api'
import type { Edit } from './useLayout'

/** What is in hand: a unit by its kind, or a block by its key; null for an empty hand. */
export type InHand = { content: NonNullable<Edit['content']>; name: string } | null

/** Where one is on the board, what is chosen there, and every key that acts on it. */
export function useBoard(view: Ref<View>, change: (e: Edit) => unknown, undo: () => void, redo: () => void) {
  const cursor = ref<[number, number]>([0, 0])
  const anchor = ref<[number, number]>([0, 0])
  const extra = ref<[number, number][]>([])
  const hand = ref<InHand>(null)
  const kept = ref<[number, number] | null>(null)

  const covers = (s: Spot, [c, r]: [number, number]) =>
    c >= s.column && c < s.column + s.across && r >= s.row && r < s.row + s.down
  const at = (spot: [number, number]) => spotsOf(view.value).find((s) => covers(s, spot))
  const here = computed(() => at(cursor.value) ?? spotsOf(view.value)[0])

  /** Everything between where the choosing began and where one is, and what was added to it. */
  const chosen = computed(() => {
    const [a, b] = [at(anchor.value) ?? here.value, here.value]
    if (!a || !b) return []
    const left = Math.min(a.column, b.column)
    const top = Math.min(a.row, b.row)
    const right = Math.max(a.column + a.across, b.column + b.across)
    const foot = Math.max(a.row + a.down, b.row + b.down)
    return spotsOf(view.value).filter(
      (s) =>
        (s.column < right && s.column + s.across > left && s.row < foot && s.row + s.down > top) ||
        extra.value.some((e) => covers(s, e)),
    )
  })
  const spots = computed(() => chosen.value.map((s) => [s.column, s.row]))

  function go(spot: [number, number], extend = false) {
    cursor.value = spot
    if (!extend) {
      anchor.value = spot
      extra.value = []
    }
  }

  function step(dx: number, dy: number, extend: boolean) {
    const s = here.value
    if (!s) return
    const [c, r] = cursor.value
    const next: [number, number] = [
      dx > 0 ? s.column + s.across : dx < 0 ? s.column - 1 : c,
      dy > 0 ? s.row + s.down : dy < 0 ? s.row - 1 : r,
    ]
    if (at(next)) go(next, extend)
  }

  function add(spot: [number, number]) {
    extra.value = [...extra.value, ...chosen.value.map((s): [number, number] => [s.column, s.row])]
    cursor.value = anchor.value = spot
  }

  const act = (what: Edit['do'], more: Partial<Edit> = {}) =>
    change({ do: what, spots: spots.value, ...more })
  const turn = (quarters = 1) => act('turn', { quarters })
  const mirror = () => act('mirror')
  const clear = () => act('clear')
  const keep = () => (kept.value = here.value ? [here.value.column, here.value.row] : null)
  const repeat = () => kept.value && act('repeat', { from: kept.value })
  const move = (from: [number, number], to: [number, number]) => change({ do: 'move', from, to })

  /** Lays what is in hand; where it lies already, it is turned a quarter. */
  function lay() {
    const held = hand.value
    if (!held) return
    const same = chosen.value.every((s) => s.content === (held.content.kind ?? held.content.block))
    void (same ? turn() : act('place', { content: held.content }))
  }

  function carry(dx: number, dy: number) {
    const s = here.value
    if (!s?.content) return
    const to: [number, number] = [
      dx > 0 ? s.column + s.across : s.column + dx,
      dy > 0 ? s.row + s.down : s.row + dy,
    ]
    if (!at(to)) return
    void move([s.column, s.row], to)
    go(to)
  }

  const arrows: Record<string, [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, -1],
    ArrowDown: [0, 1],
  }
  const keys: Record<string, () => unknown> = {
    t: () => turn(1),
    T: () => turn(-1),
    m: mirror,
    c: keep,
    v: repeat,
    Delete: clear,
    Backspace: clear,
    Enter: lay,
    ' ': lay,
    Escape: () => (hand.value = null),
  }

  function key(e: KeyboardEvent) {
    const control = e.ctrlKey || e.metaKey
    const arrow = arrows[e.key]
    const stepping = control && e.key.toLowerCase() === 'z' ? (e.shiftKey ? redo : undo) : null
    const act = stepping ?? (control && e.key.toLowerCase() === 'y' ? redo : null)
    if (arrow) (control ? carry : (x: number, y: number) => step(x, y, e.shiftKey))(...arrow)
    else if (act) act()
    else if (!control && keys[e.key]) keys[e.key]!()
    else return
    e.preventDefault()
  }

  return {
    cursor,
    here,
    chosen,
    spots,
    hand,
    kept,
    go,
    add,
    key,
    act,
    turn,
    mirror,
    clear,
    keep,
    repeat,
    move,
    lay,
  }
}
