<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'

import type { Schemas } from '@/shared/api/client'
import { coloursOf } from '@/shared/lib/colours'
import UnitPicture from '@/shared/drawing/UnitPicture.vue'

import EarlierStates from './EarlierStates.vue'

const props = defineProps<{
  project: Schemas['ProjectLine']
  /** Those of the page; the project has their numbers. */
  pictures: Schemas['Drawing'][]
  archived?: boolean
}>()
const emit = defineEmits<{ duplicate: [string]; archive: []; remove: [] }>()

const colours = computed(() => coloursOf(props.project.fabrics))
const shown = computed(() => props.project.pictures.flatMap((n) => props.pictures[n] ?? []))
const earlier = ref(false)
const newKey = () => crypto.randomUUID()
</script>

<template>
  <li class="sheet row">
    <div class="units" aria-hidden="true">
      <UnitPicture v-for="(picture, n) in shown" :key="n" :drawing="picture" :colours="colours" :size="46" />
    </div>
    <div class="what">
      <h2>
        <RouterLink :to="{ name: 'standing', params: { project: project.id } }">{{
          project.name
        }}</RouterLink>
      </h2>
      <p>{{ project.said }}</p>
      <p v-if="project.to_trim && !archived">
        {{ project.trimmed }} of {{ project.to_trim }} units trimmed.
        <RouterLink
          :to="{ name: 'bench', params: { project: project.id } }"
          :aria-label="`Go on at the bench: ${project.name}`"
          >Go on at the bench</RouterLink
        >
      </p>
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
        :aria-label="`${archived ? 'Take out of the archive' : 'Archive'}: ${project.name}`"
        @click="emit('archive')"
      >
        {{ archived ? 'Take out' : 'Archive' }}
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
