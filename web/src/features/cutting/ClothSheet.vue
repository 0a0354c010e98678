<script setup lang="ts">
import { NCheckbox } from 'naive-ui'
import { computed } from 'vue'

import type { Project, Schemas } from '@/shared/api/client'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'
import { useOutbox, useWaiting } from '@/shared/offline/outbox'
import Len from '@/shared/words/Len.vue'

/** One cloth to cut from: its picture with the piles' letters, and its strips in the order of cutting, to tick off. */
const props = defineProps<{
  cloth: Schemas['ClothPlan']
  project: Project
  /** The name of the plan whose strips these are. */
  plan: string
  colours: Record<string, string>
}>()
const { send } = useOutbox()
const waiting = useWaiting()
const fabric = () => props.project.fabrics.find((f) => f.role === props.cloth.fabric)?.name
const percent = (share: number) => `${share * 100}%`

/** As ticked here, until the server has it. */
const ticked = computed(
  () =>
    new Map(
      waiting.value.flatMap((o) =>
        o.kind === 'tick_strip' && o.project === props.project.id && o.plan === props.plan
          ? [[o.number, o.done] as const]
          : [],
      ),
    ),
)
const isDone = (s: { number: number; done: boolean }) => ticked.value.get(s.number) ?? s.done
const mark = (number: number, done: boolean) =>
  send({ kind: 'tick_strip', project: props.project.id, number, done, plan: props.plan })
</script>

<template>
  <section class="sheet cloth" :aria-label="`${fabric()}, ${cloth.name}`">
    <h2>{{ fabric() }}, {{ cloth.name }}</h2>
    <p class="soft">
      <Len :of="cloth.across" about /> × <Len :of="cloth.along" about />; <Len :of="cloth.used" about /> of
      its length is cut.
    </p>
    <div class="two">
      <div class="picture">
        <CoreDrawing :drawing="cloth.picture" :colours="colours" :width="430" />
        <span
          v-for="s in cloth.strips"
          :key="`strip ${s.number}`"
          class="strip"
          aria-hidden="true"
          :style="{ top: percent(s.top) }"
          >{{ s.number }}: {{ s.depth.pretty }}</span
        >
        <span
          v-for="(l, i) in cloth.letters"
          :key="i"
          class="letter"
          aria-hidden="true"
          :style="{ left: percent(l.x), top: percent(l.y) }"
          >{{ l.letter }}</span
        >
      </div>
      <ol>
        <li v-if="cloth.first" class="soft">{{ cloth.first }}</li>
        <li v-for="s in cloth.strips" :key="s.number" :class="{ done: isDone(s) }">
          <NCheckbox :checked="isDone(s)" @update:checked="mark(s.number, $event)">
            <strong>{{ s.number }}.</strong> {{ s.said }}
            <span class="soft">{{ s.ruler }}</span>
          </NCheckbox>
        </li>
      </ol>
    </div>
    <p v-if="cloth.left.length" class="soft">
      Left over:
      <template v-for="(l, i) in cloth.left" :key="l.name">
        {{ i ? '; ' : '' }}{{ l.name }}, {{ l.width.pretty }} × {{ l.height.pretty }}</template
      >.
    </p>
  </section>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 514px) minmax(0, 1fr);
  gap: 20px;
  margin: 10px 0;
  align-items: start;
}

.picture {
  position: relative;
  margin-left: 84px;
}

.strip {
  position: absolute;
  right: calc(100% + 6px);
  transform: translateY(-50%);
  font-weight: 600;
  line-height: 1;
  white-space: nowrap;
}

.letter {
  position: absolute;
  transform: translate(-50%, -50%);
  padding: 0 4px;
  font-weight: 600;
  line-height: 1.15;
  color: var(--ink);
  background: rgb(246 249 249 / 88%);
}

ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
}

li :deep(.n-checkbox) {
  align-items: start;
  line-height: 1.3;
}

.done :deep(.n-checkbox__label) {
  text-decoration: line-through;
}

.soft {
  display: block;
}

@media (width <= 760px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
