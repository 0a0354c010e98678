<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'

import { kindWords } from '@/shared/words/words'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'

import { type Spot, spotsOf, type View } from './api'

/** The block on the mat, a rule along its top and its left, and its places to choose with mouse or keys. */
const props = defineProps<{
  view: View
  colours: Record<string, string>
  cursor: [number, number]
  chosen: Spot[]
  width: number
}>()
const emit = defineEmits<{
  go: [spot: [number, number], extend: boolean]
  add: [spot: [number, number]]
  lay: []
  move: [from: [number, number], to: [number, number]]
  stretch: [from: [number, number], across: number, down: number]
  key: [KeyboardEvent]
}>()
const board = ref<HTMLElement>()
const lifted = ref<[number, number] | null>(null)

const turns = ['', ', turned a quarter right', ', turned half round', ', turned a quarter left']
const spotOf = (s: Spot): [number, number] => [s.column, s.row]
const covers = (s: Spot) => {
  const [c, r] = props.cursor
  return c >= s.column && c < s.column + s.across && r >= s.row && r < s.row + s.down
}
const label = (s: Spot) => {
  const what = s.name || kindWords[s.content]?.name || (s.content ? 'block' : 'empty')
  return `Row ${s.row + 1}, column ${s.column + 1}: ${what}${s.mirrored ? ', mirrored' : ''}${turns[s.turn] ?? ''}`
}
/** Columns too narrow for their size to be read along the rule: there it stands upright. */
const wholeWidth = computed(() => props.view.sizes.columns.reduce((sum, t) => sum + t.share, 0))
const across = (share: number) => (props.width * share) / wholeWidth.value
const narrow = (share: number) => across(share) < 48
/** Rows too low for their size to be read beside them: there it is written smaller. */
const low = (share: number) => across(share) < 18
const percent = (share: number | undefined) => `${(share ?? 0) * 100}%`
const place = (s: Spot) => ({
  left: percent(s.box[0]),
  top: percent(s.box[1]),
  width: percent(s.box[2]),
  height: percent(s.box[3]),
})

function press(s: Spot, e: MouseEvent) {
  if (e.ctrlKey || e.metaKey) return emit('add', spotOf(s))
  emit('go', spotOf(s), e.shiftKey)
  if (!e.shiftKey) emit('lay')
}

/** The lower right corner of the place one is at, taken with the mouse: the place reaches to where it is let go. */
const pulled = ref<Spot | null>(null)
const pull = (s: Spot, e: DragEvent) => {
  e.stopPropagation()
  pulled.value = s
}

function drop(s: Spot) {
  const from = pulled.value
  pulled.value = null
  if (from) {
    const across = s.column + s.across - from.column
    const down = s.row + s.down - from.row
    const whole = s === from ? [1, 1] : [across, down]
    if (across > 0 && down > 0) emit('stretch', spotOf(from), whole[0]!, whole[1]!)
    return
  }
  if (lifted.value) emit('move', lifted.value, spotOf(s))
  lifted.value = null
}

// The place one is at keeps the focus when the picture is drawn anew.
watch(
  () => [props.view, props.cursor],
  async () => {
    if (!board.value?.contains(document.activeElement)) return
    await nextTick()
    board.value.querySelector<HTMLElement>('[tabindex="0"]')?.focus()
  },
)
</script>

<template>
  <div
    class="with-rules"
    :class="{ high: view.sizes.columns.some((t) => narrow(t.share)) }"
    :style="{ maxWidth: `${width + 64}px` }"
  >
    <div class="corner" aria-hidden="true" />
    <div class="rule across" aria-hidden="true">
      <span
        v-for="t in view.sizes.columns"
        :key="t.name"
        :style="{ flexGrow: t.share }"
        :class="{ off: !t.on_step, narrow: narrow(t.share) }"
        >{{ t.on_step ? '' : '≈' }}{{ t.finished.pretty }}</span
      >
    </div>
    <div class="rule down" aria-hidden="true">
      <span
        v-for="t in view.sizes.rows"
        :key="t.name"
        :style="{ flexGrow: t.share }"
        :class="{ off: !t.on_step, low: low(t.share) }"
        >{{ t.on_step ? '' : '≈' }}{{ t.finished.pretty }}</span
      >
    </div>
    <div
      ref="board"
      class="board"
      role="group"
      aria-label="Places of the block"
      @keydown="emit('key', $event)"
    >
      <CoreDrawing :drawing="view.picture" :colours="colours" :width="width" />
      <button
        v-for="s in spotsOf(view)"
        :key="`${s.column} ${s.row}`"
        type="button"
        class="spot"
        :class="{ chosen: chosen.includes(s), here: covers(s) }"
        :style="place(s)"
        :tabindex="covers(s) ? 0 : -1"
        :aria-label="label(s)"
        :aria-pressed="chosen.includes(s)"
        :draggable="!!s.content"
        @click="press(s, $event)"
        @dragstart="lifted = spotOf(s)"
        @dragover.prevent
        @drop.prevent="drop(s)"
      >
        <span
          v-if="s.content && covers(s)"
          class="edge"
          draggable="true"
          title="Drag to make this place larger; let go inside it to make it one column by one row"
          @click.stop
          @dragstart="pull(s, $event)"
        />
      </button>
    </div>
  </div>
</template>

<style scoped>
.edge {
  position: absolute;
  right: -7px;
  bottom: -7px;
  z-index: 2;
  width: 18px;
  height: 18px;
  border: 2px solid var(--ink);
  background: var(--oilskin);
  cursor: nwse-resize;
}

.with-rules {
  display: grid;
  grid-template-columns: 64px minmax(0, 1fr);
  grid-template-rows: 30px auto;
}

.with-rules.high {
  grid-template-rows: 56px auto;
}

.rule .narrow {
  writing-mode: vertical-rl;
}

.rule .low {
  font-size: 12px;
  line-height: 0.8;
  overflow: visible;
}

.rule {
  display: flex;
  background: var(--steel-mid);
  font-weight: 600;
  font-stretch: 88%;
  line-height: 1;
}

.rule span {
  flex: 1 1 0;
  display: grid;
  place-items: center;
  border: 0 solid var(--ink);
  min-width: 0;
  overflow: hidden;
  white-space: nowrap;
}

.across span {
  border-left-width: 1px;
}

.down {
  flex-direction: column;
}

.down span {
  border-top-width: 1px;
}

.off {
  background: repeating-linear-gradient(135deg, #fdf1d2 0 6px, var(--oilskin) 6px 8px);
}

.corner {
  background: var(--steel-line);
}

.board {
  position: relative;
  background: var(--mat);
}

.board :deep(svg) {
  overflow: hidden;
}

.spot {
  position: absolute;
  padding: 0;
  border: 0;
  background: none;
  cursor: pointer;
}

.spot:hover {
  box-shadow: inset 0 0 0 2px #fff;
}

.spot.chosen {
  box-shadow:
    inset 0 0 0 2px var(--ink),
    inset 0 0 0 5px var(--oilskin),
    inset 0 0 0 6px var(--ink);
}

.spot:focus-visible {
  outline: 3px solid #fff;
  outline-offset: -9px;
}
</style>
