<script setup lang="ts">
import { computed } from 'vue'
import { RouterView, useRoute } from 'vue-router'
import WaitingFor from '@/shared/ui/WaitingFor.vue'

import type { Project } from '@/shared/api/client'

import { useSheet } from './api'
import BlockRail from './BlockRail.vue'

/** Laying out: the blocks of a project, and the quilt they make. */
const props = defineProps<{ project: Project; colours: Record<string, string> }>()
const { data: sheet } = useSheet(() => props.project.id)
const route = useRoute()
const block = computed(() => sheet.value?.blocks.find((b) => b.id === route.params.block))
const lost = computed(() => !!sheet.value && !!route.params.block && !block.value)
</script>

<template>
  <div v-if="sheet">
    <BlockRail :project="project" :sheet="sheet" :block="block" :colours="colours" />
    <main v-if="lost" id="main" class="sheet">
      <h2>This block is not here</h2>
      <p>It may have been removed in another window. Choose another one above.</p>
    </main>
    <RouterView v-else v-slot="{ Component }">
      <component
        :is="Component"
        :key="block?.id ?? String(route.name)"
        :project="project"
        :sheet="sheet"
        :block="block"
        :colours="colours"
      />
    </RouterView>
  </div>
  <WaitingFor v-else what="these blocks" />
</template>

<style scoped>
.on-mat {
  color: var(--chalk);
}
</style>
