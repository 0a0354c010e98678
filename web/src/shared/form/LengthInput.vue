<script setup lang="ts">
import { NInput } from 'naive-ui'
import { computed, useId } from 'vue'

/** A labelled field for anything typed; the refusal stands under it and what was typed stays in it. */
const props = defineProps<{
  label: string
  modelValue: string
  problem?: string
  hint?: string
  placeholder?: string
  numeric?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [string]; enter: [] }>()
const id = useId()
const inputProps = computed(() => ({
  id,
  autocomplete: 'off',
  spellcheck: false,
  inputmode: props.numeric ? ('numeric' as const) : ('text' as const),
  'aria-invalid': props.problem ? ('true' as const) : undefined,
  'aria-describedby': props.problem || props.hint ? `${id}-says` : undefined,
}))
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <NInput
      :value="modelValue"
      :placeholder="placeholder ?? ''"
      :status="problem ? 'error' : undefined"
      :input-props="inputProps"
      @update:value="emit('update:modelValue', $event)"
      @keydown.enter="emit('enter')"
    />
    <p v-if="problem" :id="`${id}-says`" class="problem" role="alert">{{ problem }}</p>
    <p v-else-if="hint" :id="`${id}-says`" class="soft hint">{{ hint }}</p>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  gap: 3px;
  align-content: start;
  min-width: 0;
}

label {
  font-stretch: 88%;
  font-weight: 550;
}

.problem {
  color: var(--buoy);
  line-height: 1.3;
}

.hint {
  line-height: 1.25;
}
</style>
