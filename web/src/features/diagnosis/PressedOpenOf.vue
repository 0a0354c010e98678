<script setup lang="ts">
import { useDiagnosis } from './api'
import PressedOpen from './PressedOpen.vue'

/** How the seams of a block were pressed in the end: diagnosis reckons with their folds. */
const props = defineProps<{ project: string; block: string; planned?: readonly string[] }>()
const { data } = useDiagnosis(
  () => ({ subject: 'blocks' as const, of: props.block }),
  () => 1,
  () => '',
)
</script>

<template>
  <PressedOpen v-if="data" :project="project" :block="block" :seams="data.places.seams" :planned="planned" />
</template>
