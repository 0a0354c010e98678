<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'

import CoreDrawing from './CoreDrawing.vue'

/** A finished unit in little, in the project's own colours. */
defineProps<{ drawing: Schemas['Drawing']; colours: Record<string, string>; size: number }>()
</script>

<template>
  <span class="unit" :style="{ width: `${size}px`, height: `${size}px` }">
    <CoreDrawing :drawing="drawing" :colours="colours" :width="size" />
  </span>
</template>

<style scoped>
.unit {
  display: inline-grid;
  grid-template-rows: 100%;
  flex: none;
}

.unit :deep(svg) {
  height: 100%;
}
</style>
