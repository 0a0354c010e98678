<script setup lang="ts">
/** A slider, drawn by the browser itself: keyboard, touch and screen readers know it. */
defineProps<{ label: string; min: number; max: number; step?: number }>()
const value = defineModel<number>({ required: true })
</script>

<template>
  <input v-model.number="value" type="range" :min="min" :max="max" :step="step ?? 1" :aria-label="label" />
</template>

<style scoped>
input {
  width: 100%;
  accent-color: var(--petrol-light, #2c7480);
  height: 26px;
  margin: 0;
  cursor: pointer;
}
</style>
