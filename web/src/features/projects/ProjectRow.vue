<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'

import type { Project } from '@/shared/api/client'
import { plural, schoolWords } from '@/shared/lib/words'

const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ duplicate: [string]; archive: []; remove: [] }>()

const unit = computed(() => props.project.units[0])
const size = computed(() =>
  unit.value?.size_basis === 'block'
    ? `blocks of ${unit.value.block_finished.pretty}, ${unit.value.units_across} across`
    : `finishing ${unit.value?.finished.pretty}`,
)
const newKey = () => crypto.randomUUID()
</script>

<template>
  <li class="sheet row">
    <div class="cloths" aria-hidden="true">
      <i v-for="f in project.fabrics" :key="f.id" :style="{ background: f.colour }" />
    </div>
    <div class="what">
      <h2>
        <RouterLink :to="{ name: 'plan', params: { project: project.id } }">{{ project.name }}</RouterLink>
      </h2>
      <p v-if="unit">
        {{ plural(unit.count, 'half-square triangle') }} in
        {{ project.fabrics.map((f) => f.name).join(' and ') }}, {{ size }}.
        {{ schoolWords[unit.school]?.name }}.
      </p>
    </div>
    <div class="acts">
      <NButton size="small" :aria-label="`Duplicate ${project.name}`" @click="emit('duplicate', newKey())">
        Duplicate
      </NButton>
      <NButton
        size="small"
        :aria-label="`${project.archived ? 'Take out of the archive' : 'Archive'}: ${project.name}`"
        @click="emit('archive')"
      >
        {{ project.archived ? 'Take out' : 'Archive' }}
      </NButton>
      <NButton size="small" :aria-label="`Delete ${project.name}`" @click="emit('remove')">Delete</NButton>
    </div>
  </li>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 58px minmax(0, 1fr) auto;
  gap: 18px;
  align-items: center;
}

.cloths {
  position: relative;
  height: 58px;
  border: 1px solid var(--ink);
}

.cloths i {
  position: absolute;
  inset: 0;
}

.cloths i:last-child {
  clip-path: polygon(0 0, 100% 0, 0 100%);
}

h2 a {
  color: inherit;
  text-decoration-thickness: 1px;
  text-underline-offset: 4px;
}

.acts {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}

@media (width <= 760px) {
  .row {
    grid-template-columns: 44px minmax(0, 1fr);
  }

  .acts {
    grid-column: 2;
  }
}
</style>
