<script setup lang="ts">
import { NCollapse, NCollapseItem } from 'naive-ui'
import { computed } from 'vue'

import type { Schemas } from '@/shared/api/client'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'
import TickBox from '@/shared/form/TickBox.vue'

/** One step: what to do, from the front and from the back, what to look at, and what it looks like when it went wrong. */
const props = defineProps<{
  step: Pick<Schemas['UnitStep'], 'title' | 'said' | 'look' | 'front' | 'back' | 'stage'> & {
    wrong?: Schemas['UnitStep']['wrong']
    width?: Schemas['Length']
    height?: Schemas['Length']
  }
  n: number
  times: number
  colours: Record<string, string>
  /** Undefined where there is no lot to tick it off in. */
  done?: boolean
  /** What to mind when a seam is unpicked. */
  ripper?: readonly string[]
}>()
const emit = defineEmits<{ toggle: [] }>()
const head = computed(() => (props.step.stage === 'press' ? 'press' : ''))
</script>

<template>
  <li class="sheet step" :class="[{ done }, head]">
    <div class="pictures">
      <CoreDrawing :drawing="step.front" :colours="colours" :width="210" />
      <CoreDrawing v-if="step.back" :drawing="step.back" :colours="colours" :width="120" class="back" />
    </div>
    <div class="words">
      <div class="head">
        <h3>
          <b aria-hidden="true">{{ n }}</b> {{ step.title }}
          <span v-if="times > 1" class="soft">{{ times }} times in this lot</span>
        </h3>
        <TickBox v-if="done !== undefined" :model-value="done" @update:model-value="emit('toggle')">
          Done<span class="visually-hidden"> with step {{ n }}, {{ step.title }}</span>
        </TickBox>
      </div>
      <p v-for="s in step.said" :key="s">{{ s }}</p>
      <p v-for="l in step.look" :key="l" class="look">{{ l }}</p>
      <NCollapse v-if="step.wrong?.length" class="wrongs">
        <NCollapseItem title="How it looks when it is wrong" name="wrong">
          <div v-for="w in step.wrong" :key="w.code" class="wrong">
            <figure v-if="w.before_drawing">
              <CoreDrawing :drawing="w.before_drawing" :colours="colours" :width="110" />
              <figcaption>{{ w.before }}</figcaption>
            </figure>
            <figure>
              <CoreDrawing :drawing="w.after_drawing" :colours="colours" :width="110" />
              <figcaption>
                <template v-if="!w.before_drawing">{{ w.before }} </template>{{ w.after }}
              </figcaption>
            </figure>
          </div>
          <p v-for="c in ripper ?? []" :key="c" class="look">{{ c }}</p>
        </NCollapseItem>
      </NCollapse>
      <slot />
    </div>
  </li>
</template>

<style scoped>
.step {
  display: grid;
  grid-template-columns: 210px minmax(0, 1fr);
  gap: 18px;
  padding: 12px 16px;
  align-items: start;
}

.step.done {
  background: #eef2f1;
}

.pictures {
  display: grid;
  gap: 8px;
  justify-items: center;
}

.pictures :deep(.drawing) {
  overflow: hidden;
  max-height: 220px;
}

.head {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: center;
  margin-bottom: 4px;
}

h3 b {
  display: inline-block;
  min-width: 1.6em;
  padding: 0 3px;
  text-align: center;
  background: var(--ink);
  color: #fff;
}

.press h3 b {
  background: var(--oilskin-deep);
}

h3 .soft {
  font-weight: 400;
  margin-left: 6px;
}

.look {
  border-left: 5px solid var(--oilskin);
  padding-left: 10px;
  margin-top: 4px;
}

.wrongs {
  margin-top: 8px;
}

.wrong {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 12px;
  margin-bottom: 10px;
}

figure {
  margin: 0;
}

figcaption {
  line-height: 1.25;
  margin-top: 3px;
}

@media (width <= 900px) {
  .step {
    grid-template-columns: 150px minmax(0, 1fr);
    gap: 12px;
    padding: 12px;
  }

  .pictures :deep(svg) {
    max-width: 150px;
    height: auto;
  }
}

@media (width <= 500px) {
  .step {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
