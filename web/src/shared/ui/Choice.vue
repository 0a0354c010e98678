<script setup lang="ts">
import { useId } from 'vue'

/** A few exclusive choices side by side: native radios, so that arrow keys and screen readers work as ever. */
defineProps<{ label: string; modelValue: string; options: { value: string; label: string }[] }>()
const emit = defineEmits<{ 'update:modelValue': [string] }>()
const name = useId()
</script>

<template>
  <fieldset>
    <legend>{{ label }}</legend>
    <div class="options">
      <label v-for="o in options" :key="o.value" :class="{ on: o.value === modelValue }">
        <input
          type="radio"
          :name="name"
          :value="o.value"
          :checked="o.value === modelValue"
          @change="emit('update:modelValue', o.value)"
        />
        {{ o.label }}
      </label>
    </div>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
}

legend {
  padding: 0;
  margin-bottom: 3px;
  font-stretch: 88%;
  font-weight: 550;
}

.options {
  display: flex;
  flex-wrap: wrap;
  border: 1px solid var(--steel-line);
  border-radius: 3px;
  background: #fff;
  overflow: clip;
  width: fit-content;
}

label {
  position: relative;
  flex: 1 0 auto;
  padding: 7px 12px;
  cursor: pointer;
  box-shadow: 0 0 0 1px var(--steel-mid);
}

label.on {
  background: var(--petrol);
  color: #fff;
  box-shadow: inset 0 -4px 0 var(--oilskin);
}

label:has(:focus-visible) {
  outline: 3px solid var(--oilskin);
  outline-offset: 2px;
}

input {
  position: absolute;
  inset: 0;
  margin: 0;
  opacity: 0;
  cursor: pointer;
}
</style>
