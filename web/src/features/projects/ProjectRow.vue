<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'

import type { Project } from '@/shared/api/client'
import { coloursOf } from '@/shared/lib/colours'
import { kindWords } from '@/shared/words/words'
import UnitPicture from '@/shared/drawing/UnitPicture.vue'

import EarlierStates from './EarlierStates.vue'

const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ duplicate: [string]; archive: []; remove: [] }>()

const colours = computed(() => coloursOf(props.project.fabrics))
const shown = computed(() => props.project.units.slice(0, 4))
const units = computed(() =>
  props.project.units
    .map((u) => {
      const words = kindWords[u.kind]
      const count = u.count + u.mirrored
      return `${count} ${count === 1 ? words?.name.toLowerCase() : words?.many}`
    })
    .join(', '),
)
const earlier = ref(false)
const newKey = () => crypto.randomUUID()
</script>

<template>
  <li class="sheet row">
    <div class="units" aria-hidden="true">
      <UnitPicture v-for="u in shown" :key="u.id" :drawing="u.picture" :colours="colours" :size="46" />
    </div>
    <div class="what">
      <h2>
        <RouterLink :to="{ name: 'project', params: { project: project.id } }">{{ project.name }}</RouterLink>
      </h2>
      <p>{{ units || 'No unit planned yet' }}; in {{ project.fabrics.map((f) => f.name).join(', ') }}.</p>
      <p class="links">
        <a
          class="quiet"
          :href="`/api/projects/${project.id}/export`"
          download="project.json"
          :aria-label="`Save ${project.name} as a file`"
          >Save as a file</a
        >
        <NButton text class="quiet" :aria-label="`Earlier states of ${project.name}`" @click="earlier = true">
          Earlier states
        </NButton>
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
    <EarlierStates v-model:show="earlier" :project="project" />
  </li>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 196px minmax(0, 1fr) auto;
  gap: 18px;
  align-items: center;
}

.units {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}

h2 a {
  color: inherit;
  text-decoration-thickness: 1px;
  text-underline-offset: 4px;
}

.links {
  display: flex;
  gap: 22px;
  align-items: baseline;
  margin-top: 6px;
}

.acts {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}

@media (width <= 760px) {
  .row {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
