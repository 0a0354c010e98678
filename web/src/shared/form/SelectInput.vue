<script setup lang="ts" generic="T extends string | number">
import { NSelect } from 'naive-ui'
import { computed } from 'vue'

import { useSteady } from './steady'

/** One of a list, searched by typing. ``labelled`` names it where its words stand beside it already. */
const props = defineProps<{
  labelled: string
  options: { value: T; label: string; disabled?: boolean }[]
  small?: boolean
}>()
const value = defineModel<T>({ required: true })
const steady = useSteady(() => props.options)
/** Nothing of the list: its placeholder is shown. */
const chosen = computed(() => (props.options.some((o) => o.value === value.value) ? value.value : null))
</script>

<template>
  <NSelect
    :value="chosen"
    :options="steady"
    :size="small ? 'small' : 'medium'"
    filterable
    :input-props="{ 'aria-label': labelled }"
    @update:value="value = $event"
  />
</template>
