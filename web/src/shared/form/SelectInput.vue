<script setup lang="ts" generic="T extends string | number">
import { NSelect } from 'naive-ui'

/** One of a list, searched by typing. ``labelled`` names it where its words stand beside it already. */
defineProps<{
  labelled: string
  options: { value: T; label: string; disabled?: boolean }[]
  small?: boolean
}>()
const value = defineModel<T>({ required: true })
</script>

<template>
  <NSelect
    v-model:value="value"
    :options="options"
    :size="small ? 'small' : 'medium'"
    filterable
    :input-props="{ 'aria-label': labelled }"
  />
</template>
