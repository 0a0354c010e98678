<script setup lang="ts">
import { useNow } from '@vueuse/core'
import { NButton } from 'naive-ui'
import { computed } from 'vue'

import { workWords } from '@/shared/words/words'

import { useRunning } from './useRunning'

/** The clock while it runs: what is timed, since when, and how to stop it. It asks nothing of anyone. */
const { running, stop } = useRunning()
const now = useNow({ interval: 10_000 })
const minutes = computed(() =>
  running.value
    ? Math.max(0, Math.floor((now.value.getTime() - new Date(running.value.began).getTime()) / 60_000))
    : 0,
)
const told = computed(() =>
  minutes.value < 60
    ? `${minutes.value} min`
    : `${Math.floor(minutes.value / 60)} h ${String(minutes.value % 60).padStart(2, '0')}`,
)
</script>

<template>
  <span v-if="running" class="clock">
    <span class="told">{{ workWords[running.stage] }}, {{ told }}</span>
    <NButton text @click="stop">Stop the clock</NButton>
  </span>
</template>

<style scoped>
.clock {
  display: inline-flex;
  gap: 10px;
  align-items: baseline;
  color: var(--chalk);
}

.told {
  padding: 0 8px;
  background: var(--oilskin);
  color: var(--ink);
  font-variant-numeric: tabular-nums;
}

.clock :deep(.n-button) {
  color: var(--chalk);
  border-bottom: 2px dashed var(--steel-line);
}
</style>
