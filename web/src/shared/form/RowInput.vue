<script setup lang="ts">
import { NInput } from 'naive-ui'

import FractionPad from './FractionPad.vue'

/** A short field in a row of its own kind; it is kept when one leaves it or presses Enter. */
defineProps<{
  labelled: string
  wrong?: boolean
  placeholder?: string
  numeric?: boolean
  length?: boolean
}>()
const value = defineModel<string>({ required: true })
const emit = defineEmits<{ keep: [] }>()
</script>

<template>
  <div class="entry">
    <NInput
      v-model:value="value"
      size="small"
      :placeholder="placeholder ?? ''"
      :status="wrong ? 'error' : undefined"
      :input-props="{
        'aria-label': labelled,
        'aria-invalid': wrong ? 'true' : undefined,
        inputmode: numeric ? 'numeric' : 'text',
        autocomplete: 'off',
      }"
      @change="emit('keep')"
      @keydown.enter="emit('keep')"
    />
    <FractionPad v-if="length" v-model="value" :label="labelled" @done="emit('keep')" />
  </div>
</template>

<style scoped>
.entry {
  display: flex;
  gap: 4px;
}
</style>
