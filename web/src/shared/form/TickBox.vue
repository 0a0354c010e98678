<script setup lang="ts">
import { NCheckbox } from 'naive-ui'

/** Yes or no, with its words in the slot. */
const value = defineModel<boolean>({ required: true })
</script>

<template>
  <NCheckbox v-model:checked="value"><slot /></NCheckbox>
</template>
