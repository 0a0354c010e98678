<script setup lang="ts">
import { computed } from 'vue'

import type { Schemas } from '@/shared/api/client'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'

import type { Diagnosis } from './api'
import type { Where } from './useMeasure'

/** The drawing with what can be picked laid over it: units, seams, tips, crossings, edges. The form beside it offers the same. */
const props = defineProps<{
  drawing: Schemas['Drawing']
  places: Diagnosis['places']
  colours: Record<string, string>
  where: Where
  /** CSS pixels that it is drawn wide at most, so that its numbers can be read. */
  width?: number
}>()
const emit = defineEmits<{ pick: [Partial<Where>] }>()
/** A block far higher than it is wide is drawn narrower, so that what is said of it stays in sight. */
const drawn = computed(() => {
  const [, , wide = 1, high = 1] = props.drawing.window
  const most = props.width ?? 460
  return Math.round(Math.min(most, (1.6 * most * wide) / high))
})
const dot = computed(() => (props.drawing.window[2] ?? 1) / 40)
const unit = (kind: string) =>
  [
    'width',
    'height',
    'cut',
    'raw_width',
    'raw_height',
    'diagonal_rising',
    'diagonal_falling',
    'miss',
    'clearance',
  ].includes(kind)

function ofCell(c: Schemas['Cell']) {
  const batch = props.places.batches.find((b) => b.number === c.batch)?.key ?? ''
  emit('pick', { at_unit: c.key, batch, kind: unit(props.where.kind) ? props.where.kind : 'width' })
}
const feature = computed(() => props.places.features.find((f) => f.key === props.where.feature))
const lit = computed(() => {
  const w = props.where
  if (!unit(w.kind)) return null
  // Any of a kind: the first one stands for them.
  return (
    props.places.cells.find((c) => c.key === w.at_unit) ??
    props.places.cells.find((c) => props.places.batches[c.batch]?.key === w.batch) ??
    null
  )
})
const litSeam = computed(() =>
  props.where.kind === 'stitch' ? props.places.seams.find((s) => s.name === props.where.seam) : undefined,
)
/** Where the ruler lies: a line over the unit, the seam's spot, the row's edge. */
const ruler = computed(() => {
  const w = props.where
  if (lit.value) {
    const [x, y, wide, high] = lit.value.box as [number, number, number, number]
    if (['diagonal_rising', 'miss'].includes(w.kind)) return [x, y + high, x + wide, y]
    if (w.kind === 'diagonal_falling') return [x, y, x + wide, y + high]
    const own = ['height', 'raw_height'].includes(w.kind)
    return own === lit.value.across
      ? [x, y + high / 2, x + wide, y + high / 2]
      : [x + wide / 2, y, x + wide / 2, y + high]
  }
  if (litSeam.value) {
    const [x1, y1] = litSeam.value.start as [number, number]
    const [x2, y2] = litSeam.value.end as [number, number]
    const t = { start: 0.03, middle: 0.5, end: 0.97 }[w.spot] ?? 0.5
    const [x, y] = [x1 + (x2 - x1) * t, y1 + (y2 - y1) * t]
    const reach = dot.value * 1.4
    return litSeam.value.upright ? [x - reach, y, x + reach, y] : [x, y - reach, x, y + reach]
  }
  if (feature.value && feature.value.kind === w.kind) {
    const [x, y] = feature.value.at as [number, number]
    const [left, top, wide, high] = props.drawing.window as [number, number, number, number]
    if (w.kind === 'row') return [left, y, left + wide, y]
    if (w.kind === 'column') return [x, top, x, top + high]
  }
  return null
})
</script>

<template>
  <div class="pickable" :style="{ maxWidth: `${drawn}px` }">
    <CoreDrawing :drawing="drawing" :colours="colours" :width="drawn" />
    <svg class="over" :viewBox="drawing.window.join(' ')" aria-hidden="true">
      <rect
        v-for="c in places.cells"
        :key="`c${c.number}`"
        :x="c.box[0]"
        :y="c.box[1]"
        :width="c.box[2]"
        :height="c.box[3]"
        class="cell"
        @click="ofCell(c)"
      >
        <title>{{ c.name }}</title>
      </rect>
      <line
        v-for="s in places.seams"
        :key="`s${s.name}`"
        :x1="s.start[0]"
        :y1="s.start[1]"
        :x2="s.end[0]"
        :y2="s.end[1]"
        :stroke-width="dot * 0.9"
        class="line"
        @click="emit('pick', { seam: s.name, kind: 'stitch' })"
      >
        <title>{{ s.name }}</title>
      </line>
      <circle
        v-for="f in places.features"
        :key="f.key"
        :cx="f.at[0]"
        :cy="f.at[1]"
        :r="dot * 0.8"
        class="spot"
        @click="emit('pick', { feature: f.key, kind: f.kind })"
      >
        <title>{{ f.name }}</title>
      </circle>
      <rect v-if="lit" :x="lit.box[0]" :y="lit.box[1]" :width="lit.box[2]" :height="lit.box[3]" class="lit" />
      <line
        v-if="litSeam"
        :x1="litSeam.start[0]"
        :y1="litSeam.start[1]"
        :x2="litSeam.end[0]"
        :y2="litSeam.end[1]"
        class="lit"
      />
      <line v-if="ruler" :x1="ruler[0]" :y1="ruler[1]" :x2="ruler[2]" :y2="ruler[3]" class="ruler" />
      <circle
        v-if="feature && feature.kind === where.kind"
        :cx="feature.at[0]"
        :cy="feature.at[1]"
        :r="dot"
        class="lit"
      />
    </svg>
  </div>
</template>

<style scoped>
.pickable {
  position: relative;
  width: 100%;
}

.over {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}

.cell,
.spot {
  fill: transparent;
  cursor: pointer;
}

.line {
  stroke: transparent;
  cursor: pointer;
}

.cell:hover {
  fill: rgb(255 255 255 / 16%);
}

.line:hover {
  stroke: rgb(240 180 41 / 60%);
}

.spot:hover {
  fill: rgb(240 180 41 / 70%);
}

.ruler {
  stroke: var(--ink);
  stroke-width: 5;
  vector-effect: non-scaling-stroke;
  stroke-dasharray: 1 5;
  pointer-events: none;
}

.lit {
  fill: none;
  stroke: var(--oilskin);
  stroke-width: 4;
  vector-effect: non-scaling-stroke;
  stroke-dasharray: 8 5;
  pointer-events: none;
}
</style>
