<script setup lang="ts">
import { NInput } from 'naive-ui'
import { computed, useId } from 'vue'

import FractionPad from './FractionPad.vue'

/** A labelled field for anything typed; the refusal stands under it and what was typed stays in it. */
const props = defineProps<{
  label: string
  modelValue: string
  problem?: string
  hint?: string
  placeholder?: string
  numeric?: boolean
  /** A name, not a length: no marks of a ruler beside it. */
  words?: boolean
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

/** In a form that can be sent, Enter sends it: said here too, it would be sent twice. */
function onEnter(e: KeyboardEvent) {
  const sends = e.target instanceof Element && e.target.closest('form')?.querySelector('button[type=submit]')
  if (!sends) emit('enter')
}
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <div class="entry">
      <NInput
        :value="modelValue"
        :placeholder="placeholder ?? ''"
        :status="problem ? 'error' : undefined"
        :input-props="inputProps"
        @update:value="emit('update:modelValue', $event)"
        @keydown.enter="onEnter"
      />
      <FractionPad
        v-if="!numeric && !words"
        :model-value="modelValue"
        :label="label"
        @update:model-value="emit('update:modelValue', $event)"
        @done="emit('enter')"
      />
    </div>
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

.entry {
  display: flex;
  gap: 6px;
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
