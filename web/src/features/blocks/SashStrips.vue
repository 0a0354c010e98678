<script setup lang="ts">
import { NButton } from 'naive-ui'

import type { Project } from '@/shared/api/client'
import LengthInput from '@/shared/form/LengthInput.vue'

import FabricSelect from './FabricSelect.vue'

/** The strips that make one sash, as they follow one another. */
defineProps<{ project: Project; where: string; problem?: string }>()
const strips = defineModel<{ width: string; fabric: string }[]>({ required: true })
</script>

<template>
  <div class="strips" role="group" :aria-label="where">
    <strong>{{ where }}</strong>
    <div v-for="(s, n) in strips" :key="n" class="strip">
      <LengthInput v-model="s.width" :label="`Strip ${n + 1} finishes`" />
      <FabricSelect v-model="s.fabric" label="From" :project="project" />
      <NButton
        text
        class="quiet"
        :aria-label="`Take strip ${n + 1} away, ${where.toLowerCase()}`"
        @click="strips = strips.filter((_, k) => k !== n)"
        >×</NButton
      >
    </div>
    <p v-if="!strips.length" class="soft">None: edge to edge.</p>
    <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
    <NButton
      text
      class="quiet"
      :aria-label="`One strip more, ${where.toLowerCase()}`"
      @click="
        strips = [...strips, { width: strips.at(-1)?.width ?? '1', fabric: strips.at(-1)?.fabric ?? 'a' }]
      "
      >One strip more</NButton
    >
  </div>
</template>

<style scoped>
.strips {
  display: grid;
  gap: 8px;
  justify-items: start;
}

.strip {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.3fr) 24px;
  gap: 10px;
  align-items: end;
  width: 100%;
}
</style>
