<script setup lang="ts">
import { NRadioButton, NRadioGroup } from 'naive-ui'
import { useId } from 'vue'

/** A few exclusive choices side by side. */
defineProps<{ label: string; modelValue: string; options: { value: string; label: string }[] }>()
const emit = defineEmits<{ 'update:modelValue': [string] }>()
const name = useId()
</script>

<template>
  <div class="choice">
    <span :id="`${name}-label`" class="label">{{ label }}</span>
    <NRadioGroup
      :value="modelValue"
      :name="name"
      role="radiogroup"
      :aria-labelledby="`${name}-label`"
      @update:value="emit('update:modelValue', $event)"
    >
      <NRadioButton v-for="o in options" :key="o.value" :value="o.value" :label="o.label" />
    </NRadioGroup>
  </div>
</template>

<style scoped>
.choice {
  display: grid;
  gap: 3px;
  justify-items: start;
  min-width: 0;
}

.label {
  font-stretch: 88%;
  font-weight: 550;
}

:deep(.n-radio-group) {
  display: flex;
  flex-wrap: wrap;
  height: auto;
  row-gap: 4px;
}

/* Each keeps its own left edge, so that one that begins a second line has it too. */
:deep(.n-radio-button) {
  margin-left: -1px;
  border-inline: 1px solid var(--steel-line) !important;
}

:deep(.n-radio-group__splitor) {
  display: none;
}

:deep(.n-radio-button--checked) {
  box-shadow: inset 0 -4px 0 var(--oilskin);
}

:deep(.n-radio-button:has(:focus-visible)) {
  outline: 3px solid var(--oilskin);
  outline-offset: 2px;
}
</style>
