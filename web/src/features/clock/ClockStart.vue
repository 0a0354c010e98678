<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed } from 'vue'

import { workWords } from '@/shared/words/words'

import type { WorkStage } from './api'
import { useRunning } from './useRunning'

/** Begins the clock for a stage; nothing where it runs for that already. */
const props = defineProps<{ project: string; stage: WorkStage }>()
const { running, begin } = useRunning()
const runs = computed(() => running.value?.project === props.project && running.value.stage === props.stage)
const what = computed(() => (workWords[props.stage] ?? '').toLowerCase())
</script>

<template>
  <NButton v-if="!runs" text class="start" @click="begin(project, stage)">Time {{ what }}</NButton>
</template>

<style scoped>
.start {
  color: var(--chalk);
  border-bottom: 2px dashed var(--steel-line);
}
</style>
