<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import { cutWords, dimensionWords, rungWords } from '@/shared/words/words'

import Len from '@/shared/words/Len.vue'

export interface Pin {
  id: string
  dimension: string
  rung: string
  at: number
  label: string
  off: boolean
}

/** Cut, raw, trimmed and finished on one scale, with what is lost between them; readings stand on it as pins. */
const props = withDefaults(defineProps<{ ladder: Schemas['Ladder']; pins?: Pin[]; lit?: string | null }>(), {
  pins: () => [],
  lit: null,
})

const pct = (share: number) => `${(share * 100).toFixed(3)}%`
const pinsOn = (rung: string) =>
  props.pins.filter((p) => p.rung === rung && p.dimension === props.ladder.dimension)
const between = (a: number, b: number) => ({ left: pct(Math.min(a, b)), width: pct(Math.abs(b - a)) })
const before = (i: number) => props.ladder.rungs[i - 1]
</script>

<template>
  <figure class="ladder" :aria-label="`${dimensionWords[ladder.dimension]} ladder`">
    <div class="row rule">
      <span class="name soft">{{ dimensionWords[ladder.dimension] }}</span>
      <div class="scale" aria-hidden="true">
        <template v-for="tick in ladder.ticks" :key="tick.at">
          <i class="tick" :class="`rank${tick.rank}`" :style="{ left: pct(tick.at) }" />
          <b v-if="tick.figure" class="figure" :style="{ left: pct(tick.at) }">{{ tick.figure }}</b>
        </template>
      </div>
      <span class="why" />
    </div>
    <div v-for="(rung, i) in ladder.rungs" :key="rung.name" class="row">
      <span class="name">
        {{ rungWords[rung.name] }}
        <Len :of="rung.size" about />
      </span>
      <div class="scale">
        <div class="cloth" :class="[rung.name, { beyond: rung.beyond }]" :style="{ width: pct(rung.at) }" />
        <div
          v-if="before(i)"
          :class="before(i)!.gain ? 'gained' : 'lost'"
          :style="between(rung.at, before(i)!.at)"
        />
        <i
          v-for="pin in pinsOn(rung.name)"
          :key="pin.id"
          class="pin"
          :class="{ off: pin.off, lit: pin.id === lit }"
          :style="{ left: pct(pin.at) }"
          :title="pin.label"
        />
      </div>
      <span class="why">
        <template v-if="before(i)?.loss">
          {{ before(i)!.gain ? '+' : '−' }} <Len :of="before(i)!.loss!" about /> {{ before(i)!.why }}
        </template>
        <template v-else>{{ cutWords[ladder.head] }}, as cut</template>
      </span>
    </div>
  </figure>
</template>

<style scoped>
.ladder {
  container-type: inline-size;
  margin: 0;
  display: grid;
  gap: 5px;
}

.row {
  display: grid;
  grid-template-columns: 148px minmax(0, 1fr) 220px;
  align-items: center;
  gap: 12px;
}

.name {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  font-weight: 550;
  font-stretch: 88%;
}

.name :deep(.number) {
  font-stretch: 100%;
}

.scale {
  position: relative;
  height: 27px;
}

.rule .scale {
  height: 36px;
  background: var(--steel-mid);
  border-bottom: 2px solid var(--ink);
  overflow: hidden;
}

.tick {
  position: absolute;
  bottom: 0;
  width: 1px;
  height: 7px;
  background: var(--ink);
}

.rank0 {
  height: 15px;
  width: 2px;
}

.rank1 {
  height: 12px;
}

.rank2 {
  height: 10px;
}

.figure {
  position: absolute;
  top: 0;
  font-size: 16px;
  font-weight: 500;
  transform: translateX(-50%);
  white-space: nowrap;
}

.cloth {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--petrol);
  /* the cloth goes on to the left, out of the window */
  clip-path: polygon(5px 0, 100% 0, 100% 100%, 5px 100%, 0 80%, 5px 60%, 0 40%, 5px 20%);
  transition: width 0.18s ease-out;
}

.cloth.raw {
  background: #2c7480;
}

.cloth.trimmed {
  background: #0f4a52;
}

.cloth.finished {
  background: var(--oilskin);
}

.lost {
  position: absolute;
  inset: 0 auto 0 auto;
  border: 1.5px dashed var(--steel-line);
  border-left: 0;
  background: repeating-linear-gradient(135deg, transparent 0 5px, rgb(65 85 92 / 22%) 5px 6px);
  transition:
    left 0.18s ease-out,
    width 0.18s ease-out;
}

.cloth.beyond {
  clip-path: polygon(
    5px 0,
    100% 0,
    calc(100% - 6px) 25%,
    100% 50%,
    calc(100% - 6px) 75%,
    100% 100%,
    5px 100%,
    0 80%,
    5px 60%,
    0 40%,
    5px 20%
  );
}

.gained {
  position: absolute;
  inset: 0 auto;
  background: repeating-linear-gradient(45deg, transparent 0 5px, rgb(255 255 255 / 45%) 5px 7px);
  border-left: 2px dashed #fff;
}

.pin {
  position: absolute;
  top: -3px;
  bottom: -3px;
  width: 2px;
  margin-left: -1px;
  background: #fff;
  box-shadow: 0 0 0 1px var(--ink);
}

.pin::before {
  content: '';
  position: absolute;
  top: -3px;
  left: -3px;
  width: 8px;
  height: 8px;
  border-radius: 50%;
  background: #fff;
  border: 2px solid var(--ink);
}

.pin.off::before {
  background: var(--oilskin);
  border-radius: 0;
  transform: rotate(45deg);
}

.pin.lit {
  z-index: 2;
  box-shadow: 0 0 0 3px var(--oilskin);
}

.why {
  font-size: 16px;
  color: var(--ink-soft);
  line-height: 1.2;
}

.why :deep(.number) {
  color: var(--ink);
}

/* Where the ladder is narrow, what is lost stands below its bar. */
@container (width <= 620px) {
  .row {
    grid-template-columns: 132px minmax(0, 1fr);
    gap: 2px 12px;
  }

  .row .why {
    grid-column: 2;
  }
}

@container (width <= 400px) {
  .row {
    grid-template-columns: 96px minmax(0, 1fr);
  }

  .name {
    flex-direction: column;
  }
}
</style>
