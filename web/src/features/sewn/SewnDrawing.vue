<script setup lang="ts">
import { computed } from 'vue'

import type { Schemas } from '@/shared/api/client'
import CoreDrawing from '@/shared/ui/CoreDrawing.vue'

import type { Sewn } from './api'
import type { Where } from './useMeasure'

/** The drawing with what can be picked laid over it: units, seams, tips, crossings, edges. The form beside it offers the same. */
const props = defineProps<{
  drawing: Schemas['Drawing']
  places: Sewn['places']
  colours: Record<string, string>
  where: Where
}>()
const emit = defineEmits<{ pick: [Partial<Where>] }>()
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
  emit('pick', { cell: c.number, batch: c.batch, kind: unit(props.where.kind) ? props.where.kind : 'width' })
}
const feature = computed(() => props.places.features.find((f) => f.key === props.where.feature))
const lit = computed(() => {
  const w = props.where
  if (feature.value?.kind === w.kind) return null
  return unit(w.kind) && w.cell >= 0 ? props.places.cells[w.cell] : null
})
const litSeam = computed(() =>
  props.where.kind === 'stitch' && props.where.seam >= 0 ? props.places.seams[props.where.seam] : null,
)
</script>

<template>
  <div class="pickable">
    <CoreDrawing :drawing="drawing" :colours="colours" :width="560" />
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
        :key="`s${s.number}`"
        :x1="s.start[0]"
        :y1="s.start[1]"
        :x2="s.end[0]"
        :y2="s.end[1]"
        :stroke-width="dot * 0.9"
        class="line"
        @click="emit('pick', { seam: s.number, kind: 'stitch' })"
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
  max-width: 560px;
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

.lit {
  fill: none;
  stroke: var(--oilskin);
  stroke-width: 4;
  vector-effect: non-scaling-stroke;
  stroke-dasharray: 8 5;
  pointer-events: none;
}
</style>
