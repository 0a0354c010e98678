<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink, RouterView } from 'vue-router'

import { Refusal } from '@/shared/api/client'

import { useProject } from './api'
import ProjectName from './ProjectName.vue'
import StageRule from './StageRule.vue'

const props = defineProps<{ project: string }>()
const { data, error } = useProject(() => props.project)
const gone = computed(() => error.value instanceof Refusal && error.value.problem.status === 404)
const malformed = computed(() => error.value instanceof Refusal && !gone.value)
const unit = computed(() => data.value?.units[0])
const colours = computed(() => Object.fromEntries((data.value?.fabrics ?? []).map((f) => [f.role, f.colour])))
</script>

<template>
  <div v-if="gone || malformed" class="page">
    <main id="main" class="sheet">
      <h1>This project is not here</h1>
      <p>It may have been deleted in another window. <RouterLink to="/">Go to the projects</RouterLink></p>
    </main>
  </div>
  <div v-else-if="data && unit" class="page">
    <div class="head">
      <ProjectName :project="data" />
      <StageRule :project="data.id" />
    </div>
    <RouterView v-slot="{ Component }">
      <component :is="Component" :key="data.id" :project="data" :unit="unit" :colours="colours" />
    </RouterView>
  </div>
  <p v-else class="page waiting">Fetching the project…</p>
</template>

<style scoped>
.page {
  max-width: 1328px;
  margin: 0 auto;
  padding: 12px 24px 40px;
}

.waiting {
  color: var(--chalk);
}

.head {
  display: grid;
  grid-template-columns: minmax(240px, 1fr) minmax(0, 780px);
  gap: 24px;
  align-items: center;
  margin-bottom: 12px;
}

@media (width <= 900px) {
  .head {
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
  }

  .page {
    padding-inline: 12px;
  }
}
</style>
