<script setup lang="ts">
import { computed, useId } from 'vue'

import type { Schemas } from '@/shared/api/client'

/** Strokes and fills a drawing that the core made; knows nothing of what it shows. */
const props = defineProps<{
  drawing: Schemas['Drawing']
  colours: Record<string, string>
  /** Displayed width in CSS pixels, so that labels come out 18 px high. */
  width: number
  round?: boolean
}>()

const filled = ['face', 'under', 'back', 'patch']
const haloed = ['mark', 'target', 'finished', 'block-edge', 'fault']
const point = (mark: Schemas['Mark']) => mark.d.slice(1).split(',').map(Number) as [number, number]
const id = useId()
const viewBox = computed(() => props.drawing.window.join(' '))
/** So small that lines would leave nothing of the colours. */
const fine = computed(() => {
  const stamped = props.drawing.stamps.reduce((n, stamp) => n + stamp.marks.length * stamp.at.length, 0)
  return props.width ** 2 < 30 * (props.drawing.marks.length + stamped)
})
const unit = computed(() => (props.drawing.window[2] ?? 1) / props.width)
/** As one text, which stays what it is when the drawing comes anew with another size. */
const paintOf = (mark: Schemas['Mark']) => {
  const colour = props.colours[mark.fabric] ?? '#b7c6cb'
  return mark.role === 'patch' ? `fill:${colour};stroke:${colour}` : `fill:${colour}`
}
/** A number at a point, not a measure between two. */
const single = (d: Schemas['Dimension']) => d.start[0] === d.end[0] && d.start[1] === d.end[1]
const tick = (d: Schemas['Dimension']) => {
  const [x1, y1] = d.start as [number, number]
  const [x2, y2] = d.end as [number, number]
  const s = unit.value * 5
  const upright = Math.abs(x1 - x2) < Math.abs(y1 - y2)
  const end = (x: number, y: number) => (upright ? `M${x - s},${y}H${x + s}` : `M${x},${y - s}V${y + s}`)
  return `M${x1},${y1}L${x2},${y2}${end(x1, y1)}${end(x2, y2)}`
}
</script>

<template>
  <svg
    class="drawing"
    :class="{ round }"
    :viewBox="viewBox"
    :style="{ maxWidth: `${width}px` }"
    :role="drawing.alt ? 'img' : undefined"
    :aria-label="drawing.alt || undefined"
    :aria-hidden="drawing.alt ? undefined : 'true'"
  >
    <defs>
      <pattern :id="`${id}-back`" patternUnits="userSpaceOnUse" :width="unit * 7" :height="unit * 7">
        <circle :cx="unit * 2" :cy="unit * 2" :r="unit * 1.1" fill="#ffffff" fill-opacity=".75" />
      </pattern>
    </defs>
    <template v-for="(mark, i) in drawing.marks" :key="i">
      <circle
        v-if="mark.role === 'tip'"
        :cx="point(mark)[0]"
        :cy="point(mark)[1]"
        :r="unit * 4.5"
        class="tip"
      />
      <circle
        v-if="mark.role === 'fault-point'"
        :cx="point(mark)[0]"
        :cy="point(mark)[1]"
        :r="unit * 14"
        class="tip"
      />
      <path v-if="haloed.includes(mark.role)" :d="mark.d" class="halo" />
      <path
        :d="mark.d"
        :class="[mark.role, { fine }]"
        :style="filled.includes(mark.role) ? paintOf(mark) : undefined"
      />
      <path v-if="mark.role === 'back'" :d="mark.d" :style="`fill:url(#${id}-back)`" />
    </template>
    <template v-for="(stamp, s) in drawing.stamps" :key="`s${s}`">
      <defs>
        <g :id="`${id}-stamp-${s}`">
          <path
            v-for="(mark, i) in stamp.marks"
            :key="i"
            :d="mark.d"
            :class="[mark.role, { fine }]"
            :style="paintOf(mark)"
          />
        </g>
      </defs>
      <use
        v-for="([x, y], i) in stamp.at"
        :key="i"
        :href="`#${id}-stamp-${s}`"
        :transform="`translate(${x} ${y}) rotate(${stamp.turn})`"
      />
    </template>
    <g v-for="(d, i) in drawing.dimensions" :key="`d${i}`">
      <template v-if="!single(d)">
        <path :d="tick(d)" class="dimension-gap" />
        <path :d="tick(d)" class="dimension" />
      </template>
      <text
        :x="d.at[0]"
        :y="d.at[1]"
        :dy="unit * 6"
        :font-size="unit * 18"
        :stroke-width="single(d) ? 0 : unit * 6"
        text-anchor="middle"
      >
        {{ d.label }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.drawing {
  display: block;
  width: 100%;
  height: auto;
  overflow: visible;
}

.round {
  overflow: hidden;
  border-radius: 50%;
  border: 3px solid var(--ink);
  background: var(--steel-light);
}

path {
  fill: none;
  vector-effect: non-scaling-stroke;
}

.face {
  stroke: var(--ink);
  stroke-width: 1;
}

/* Said of the piece itself: what is stamped does not see what stands round its stamp. */
.face.fine {
  stroke: none;
}

.patch {
  stroke-width: 1;
}

.joined {
  stroke: var(--ink);
  stroke-width: 1;
}

.under {
  stroke: var(--ink);
  stroke-width: 1;
  stroke-dasharray: 2 2;
  fill-opacity: 0.55;
}

.back {
  stroke: var(--ink);
  stroke-width: 1;
}

.seam {
  stroke: var(--ink);
  stroke-width: 1.5;
}

.stitch {
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: 6 4;
}

.blade {
  stroke: var(--buoy);
  stroke-width: 2.5;
  stroke-dasharray: 12 3 2 3;
}

.halo {
  stroke: var(--ink);
  stroke-width: 4.5;
}

.target {
  stroke: #fff;
  stroke-width: 2.5;
}

.finished {
  stroke: #fff;
  stroke-width: 2;
  stroke-dasharray: 7 5;
}

.tip {
  fill: var(--oilskin);
  stroke: var(--ink);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}

.clearance {
  stroke: var(--oilskin);
  stroke-width: 3;
}

.mark {
  stroke: #fff;
  stroke-width: 3;
  stroke-dasharray: 9 3;
  paint-order: stroke;
}

.fresh {
  stroke: var(--oilskin);
  stroke-width: 5;
}

.ruler {
  fill: rgb(214 236 240 / 45%);
  stroke: var(--ink);
  stroke-width: 2;
}

.ruler-line {
  stroke: #0b3a41;
  stroke-width: 1.5;
}

.ruler-diagonal {
  stroke: #0b3a41;
  stroke-width: 2;
  stroke-dasharray: 14 5;
}

.empty {
  fill: rgb(255 255 255 / 14%);
  stroke: var(--steel-line);
  stroke-width: 1.5;
  stroke-dasharray: 6 5;
}

.allowance {
  fill: rgb(16 36 43 / 34%);
  stroke: rgb(255 255 255 / 75%);
  stroke-width: 1;
}

.block-edge {
  stroke: #fff;
  stroke-width: 2;
}

.arrow {
  fill: var(--oilskin);
  stroke: var(--ink);
  stroke-width: 1.5;
}

.fault {
  stroke: var(--oilskin);
  stroke-width: 5;
}

.dimension {
  stroke: var(--ink);
  stroke-width: 1.5;
}

.dimension-gap {
  stroke: var(--steel-light);
  stroke-width: 4;
}

text {
  fill: var(--ink);
  font-weight: 600;
  paint-order: stroke;
  stroke: var(--steel-light);
  stroke-linejoin: round;
}
</style>
