<script setup lang="ts">
import SelectInput from '@/shared/form/SelectInput.vue'
import TickBox from '@/shared/form/TickBox.vue'
import { computed } from 'vue'

import { Refusal, type Project } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'

import { type SavedBlock, usePressing } from './api'

/** The back of the block with an arrow for every seam, what had to give way, and the wishes it was found with. */
const props = defineProps<{ project: Project; block: SavedBlock; colours: Record<string, string> }>()
const { data, error, isFetching } = usePressing(() => props.block)
const { send } = useOutbox()
const refusal = computed(() => (error.value instanceof Refusal ? error.value.message : ''))
const byCode = computed(() => [...(data.value?.conflicts ?? [])].sort((a, b) => b.code.localeCompare(a.code)))

function wish(changes: Record<string, unknown>) {
  const pressing = { ...data.value?.wishes, ...changes }
  send({
    kind: 'put_block',
    project: props.project.id,
    block: props.block.id,
    changes: { pressing },
    seen: {},
  })
}

function spin(x: number, y: number, on: boolean) {
  const others = (data.value?.wishes.spun ?? []).filter(([a, b]) => a !== x || b !== y)
  wish({ spun: on ? [...others, [x, y]] : others })
}
const layers = [0, 5, 6, 7, 8, 9, 10, 12, 14].map((n) => ({
  value: n,
  label: n ? String(n) : 'any number of',
}))
const percent = (share: number) => `${share * 100}%`
const crossings = computed(() => (data.value?.crossings ?? []).filter((c) => c.plain))
</script>

<template>
  <section class="sheet" aria-label="Pressing map" :aria-busy="isFetching">
    <h2>Pressing map</h2>
    <p v-if="refusal" role="alert" class="serious">{{ refusal }}</p>
    <template v-if="data">
      <p class="answer" role="status">
        <strong>{{ data.nested }} of {{ data.pairs }} meetings nest.</strong>
        At most {{ data.most_layers }} layers meet.
        {{
          data.optimal
            ? 'No better pressing exists for these wishes.'
            : 'The best found in the time there is.'
        }}
        {{ data.sound ? '' : 'The separate check disagrees; do not rely on this map.' }}
        <template v-if="data.wishes.repeats">
          Across neighbouring blocks {{ data.edge_nested }} of {{ data.edge_pairs }} nest.
        </template>
      </p>
      <div class="both">
        <div class="maps">
          <figure>
            <div class="map">
              <CoreDrawing :drawing="data.back" :colours="colours" :width="420" />
              <button
                v-for="c in crossings"
                :key="`${c.x} ${c.y}`"
                type="button"
                class="crossing"
                :class="{ spun: c.spun }"
                :style="{ left: percent(c.left), top: percent(c.top) }"
                :aria-pressed="c.spun"
                :aria-label="`Spin the crossing ${Math.round(c.left * 100)} percent across, ${Math.round(c.top * 100)} percent down`"
                title="Spin this crossing open"
                @click="spin(c.x, c.y, !c.spun)"
              />
            </div>
            <figcaption>
              {{ data.second ? 'Every other block, from the back' : 'The back' }}: shaded, where each
              allowance lies. A dot is a four-seam crossing; press it to spin its seams open.
            </figcaption>
          </figure>
          <figure v-if="data.second">
            <CoreDrawing :drawing="data.second" :colours="colours" :width="420" />
            <figcaption>
              The blocks between, from the back: pressed so that rows nest across neighbouring blocks.
            </figcaption>
          </figure>
        </div>
        <div class="told">
          <div class="wishes" role="group" aria-label="Wishes">
            <strong>Wishes</strong>
            <TickBox :model-value="data.wishes.to_dark" @update:model-value="wish({ to_dark: $event })">
              toward the dark
            </TickBox>
            <TickBox :model-value="data.wishes.from_bulk" @update:model-value="wish({ from_bulk: $event })">
              away from the bulk
            </TickBox>
            <TickBox :model-value="data.wishes.repeats" @update:model-value="wish({ repeats: $event })">
              nest across neighbouring blocks
            </TickBox>
            <div class="layers">
              open where more than
              <SelectInput
                small
                labelled="Layers that may meet"
                :model-value="data.wishes.layers ?? 0"
                :options="layers"
                @update:model-value="wish({ layers: $event || null })"
              />
              layers meet
            </div>
          </div>
          <ul v-if="byCode.length" class="conflicts">
            <li v-for="c in byCode" :key="c.said" :class="{ serious: c.code !== 'to_light' }">
              {{ c.said }}
            </li>
          </ul>
          <details>
            <summary>Every seam in words, as seen on the back</summary>
            <ul class="seams">
              <li v-for="s in data.seams" :key="s.name">
                <span>{{ s.name }}</span> <strong>{{ s.way }}</strong>
              </li>
            </ul>
          </details>
        </div>
      </div>
    </template>
    <p v-else-if="!refusal">Looking for the best pressing…</p>
  </section>
</template>

<style scoped>
.answer {
  margin: 4px 0 12px;
}

.both {
  display: grid;
  grid-template-columns: minmax(0, 440px) minmax(0, 1fr);
  gap: 24px;
  align-items: start;
}

@media (width <= 900px) {
  .both {
    grid-template-columns: minmax(0, 1fr);
  }
}

.maps {
  display: grid;
  gap: 16px;
}

figure {
  margin: 0;
}

.map {
  position: relative;
  max-width: 420px;
}

figcaption {
  margin-top: 6px;
  max-width: 480px;
  color: var(--ink-soft);
  line-height: 1.3;
}

.crossing {
  position: absolute;
  width: 26px;
  height: 26px;
  margin: -13px;
  padding: 0;
  border-radius: 50%;
  border: 7px solid transparent;
  background: var(--steel-light) content-box;
  background-clip: padding-box;
  box-shadow: inset 0 0 0 2px var(--ink);
  cursor: pointer;
}

.crossing.spun {
  background-color: var(--oilskin);
  border-width: 3px;
}

.wishes {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 22px;
  align-items: center;
}

.layers {
  display: flex;
  gap: 8px;
  align-items: center;
}

.layers :deep(.n-select) {
  width: 160px;
}

.conflicts {
  margin: 12px 0 0;
  padding-left: 20px;
  line-height: 1.35;
}

details {
  margin-top: 12px;
}

summary {
  cursor: pointer;
  color: var(--petrol);
}

.seams {
  columns: 2 240px;
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}

.seams li {
  break-inside: avoid;
  padding: 2px 0;
}

.seams li::first-letter {
  text-transform: uppercase;
}
</style>
