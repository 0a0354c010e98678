<script setup lang="ts">
import { computed } from 'vue'

import { BlockSteps } from '@/features/bench'
import { PressedOpenOf } from '@/features/diagnosis'
import type { Project } from '@/shared/api/client'

import { type SavedBlock, type Sheet, usePressing } from './api'
import PressingSheet from './PressingSheet.vue'

/** The pressing map of a block, and the steps of pressing it. */
const props = defineProps<{
  project: Project
  sheet: Sheet
  block: SavedBlock
  colours: Record<string, string>
}>()
const { data: map } = usePressing(() => props.block)
const planned = computed(() => map.value?.seams.filter((s) => s.way === 'open').map((s) => s.name))
</script>

<template>
  <main id="main" class="press">
    <h2 class="visually-hidden">Press {{ block.view.name }}</h2>
    <PressingSheet :project="project" :block="block" :colours="colours" />
    <PressedOpenOf :project="project.id" :block="block.id" :planned="planned" />
    <BlockSteps :project="project" :block="block.id" :colours="colours" stage="press" />
  </main>
</template>

<style scoped>
.press {
  display: grid;
  gap: 14px;
}
</style>
