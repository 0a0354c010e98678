<script setup lang="ts">
import { NButton } from 'naive-ui'
import { ref } from 'vue'

import type { Project } from '@/shared/api/client'

import KindDialog from './KindDialog.vue'
import { useUnits } from './useUnits'

/** A project without any unit: the first one is chosen here. */
const props = defineProps<{ project: Project }>()
const { add } = useUnits(() => props.project)
const choosing = ref(false)
</script>

<template>
  <main id="main" class="sheet none">
    <h2>No unit is planned here</h2>
    <p>Choose the first one: its sizes, what to cut and how to trim it follow.</p>
    <NButton type="primary" @click="choosing = true">Add a unit</NButton>
    <KindDialog v-model:show="choosing" title="Which unit" @choose="add($event)" />
  </main>
</template>

<style scoped>
.none {
  display: grid;
  gap: 12px;
  justify-items: start;
  max-width: 620px;
}
</style>
