<script setup lang="ts">
import { NButton, NProgress } from 'naive-ui'
import { computed } from 'vue'

import type { Schemas } from '@/shared/api/client'

import { useDone } from './useDone'
import WhySpoiled from './WhySpoiled.vue'

/** Trimming as a chore, counted down: one, five, or all that are sewn; and what was spoiled. */
const props = defineProps<{ project: string; unit: string; tally: Schemas['Tally']; large?: boolean }>()
const { count, coming, spoiled, sayWhy } = useDone(
  () => props.project,
  'units',
  () => props.unit,
)
/** With what is on its way: counting goes on while the server is away. */
const trimmed = computed(() => props.tally.trimmed + coming('trimmed'))
const toGo = computed(() => Math.max(0, props.tally.to_make + coming('spoiled') - trimmed.value))
const there = computed(() => Math.max(0, props.tally.sewn - trimmed.value))
const share = computed(() =>
  props.tally.to_make
    ? Math.round((100 * Math.min(trimmed.value, props.tally.to_make)) / props.tally.to_make)
    : 0,
)
const countSaid = (n: number) => (n === 1 ? 'One is put down as trimmed.' : `${n} are put down as trimmed.`)
const size = computed(() => (props.large ? 'large' : 'medium'))
</script>

<template>
  <div class="down" :class="{ large }">
    <p role="status">
      <strong>{{ toGo }}</strong> to go: {{ trimmed }} of {{ tally.to_make }} trimmed.
    </p>
    <NProgress type="line" :percentage="share" :show-indicator="false" aria-hidden="true" />
    <div class="acts">
      <NButton type="primary" :size="size" :disabled="there < 1" @click="count('trimmed', 1, countSaid(1))"
        >One more</NButton
      >
      <NButton :size="size" :disabled="there < 5" @click="count('trimmed', 5, countSaid(5))"
        >Five more</NButton
      >
      <NButton v-if="there > 1 && there !== 5" :size="size" @click="count('trimmed', there, countSaid(there))"
        >All {{ there }}</NButton
      >
      <NButton :size="size" @click="count('spoiled', 1, 'One unit is put down as spoiled.')"
        >One is spoiled</NButton
      >
    </div>
    <WhySpoiled v-if="spoiled" @why="sayWhy" @leave="spoiled = ''" />
    <p v-if="!there && toGo" class="soft">
      No more are put down as sewn. Tick their steps on Sew, or put the lot down as a whole.
    </p>
    <p v-if="tally.spoiled" class="soft">{{ tally.spoiled }} spoiled: they are cut and made again.</p>
  </div>
</template>

<style scoped>
.down {
  display: grid;
  gap: 8px;
}

strong {
  font-size: 30px;
  line-height: 1;
}

.large .acts {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
}

.large .acts :deep(.n-button) {
  min-height: 84px;
  font-size: 24px;
}

.large strong {
  font-size: 96px;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.acts :deep(.n-button) {
  min-height: 48px;
}
</style>
