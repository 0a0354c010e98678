<script setup lang="ts">
import type { PlannedUnit, Project } from '@/shared/api/client'

import UnitSteps from './UnitSteps.vue'

/** Sewing a kind of unit. */
defineProps<{ project: Project; unit: PlannedUnit; colours: Record<string, string> }>()
</script>

<template>
  <UnitSteps :project="project" :unit="unit" :colours="colours" stage="sew" />
</template>
