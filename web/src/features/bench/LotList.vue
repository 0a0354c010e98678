<script setup lang="ts">
import { NButton, NProgress } from 'naive-ui'
import { computed } from 'vue'

import { plural } from '@/shared/words/words'

import type { Lot } from './api'

/** The lots in their order: what each holds, how far it is, where a bobbin is wound; one of them is in hand. */
const props = defineProps<{
  lots: readonly Lot[]
  steps: readonly { key: string }[]
  isDone: (lot: Lot, step: string) => boolean
  /** What one of a lot is: a unit, a block. */
  one: string
  per: number
}>()
const picked = defineModel<number>({ required: true })
const doneOf = (lot: Lot) => props.steps.filter((s) => props.isDone(lot, s.key)).length
const shown = computed(() => props.lots.slice(0, 60))
const many = computed(() => (props.one === 'unit' ? 'units' : `${props.one}s`))
</script>

<template>
  <ul class="lots">
    <li v-for="l in shown" :key="l.number">
      <NButton
        :type="l.number === picked ? 'primary' : 'default'"
        :aria-pressed="l.number === picked"
        block
        class="lot"
        @click="picked = l.number"
      >
        <span class="name">{{ one === 'block' ? 'Block' : 'Lot' }} {{ l.number }}</span>
        <span v-if="one !== 'block' || l.units > 1"
          >{{ per > 1 ? plural(l.goes, 'set') + ', ' : '' }}{{ plural(l.units, one, many) }}</span
        >
      </NButton>
      <NProgress
        type="line"
        :percentage="steps.length ? Math.round((100 * doneOf(l)) / steps.length) : 0"
        :show-indicator="false"
        :height="6"
        aria-hidden="true"
      />
      <p>
        {{ doneOf(l) }} of {{ steps.length }} steps done
        <span v-if="l.wind" class="line serious">Wind a bobbin first.</span>
        <span v-if="l.thread" class="line soft">about {{ l.thread }} of thread</span>
      </p>
    </li>
    <li v-if="lots.length > shown.length" class="soft">{{ lots.length - shown.length }} more after these.</li>
  </ul>
</template>

<style scoped>
.lots {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 10px;
}

.lot {
  min-height: 48px;
}

.lot :deep(.n-button__content) {
  width: 100%;
  justify-content: space-between;
}

.name {
  font-weight: 650;
}

.line {
  display: block;
}
</style>
