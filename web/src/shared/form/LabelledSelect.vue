<script setup lang="ts" generic="T extends string | number">
import SelectInput from './SelectInput.vue'

/** One of a list, with its label above it as a field of a form; ``named`` where the label alone would not tell it from others. */
defineProps<{ label: string; named?: string; options: { value: T; label: string; disabled?: boolean }[] }>()
const value = defineModel<T>({ required: true })
</script>

<template>
  <div class="pick">
    <span>{{ label }}</span>
    <SelectInput v-model="value" :labelled="named ?? label" :options="options" />
  </div>
</template>

<style scoped>
.pick {
  display: grid;
  gap: 3px;
  align-content: start;
  min-width: 0;
  font-stretch: 88%;
  font-weight: 550;
}
</style>
