<script setup lang="ts">
import { NButton, NModal } from 'naive-ui'
import { computed } from 'vue'
import { useRouter } from 'vue-router'

import type { Project } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'

import { useHistory } from './api'
import { momentWords } from '@/shared/words/days'

/** The last states of a project, each to be opened as a copy; the project itself stays as it is. */
const props = defineProps<{ project: Pick<Project, 'id' | 'name'> }>()
const show = defineModel<boolean>('show', { required: true })
const { data } = useHistory(
  () => props.project.id,
  () => show.value,
)
const { sent } = useOutbox()
const router = useRouter()
const states = computed(() => data.value ?? [])

const what = (said: string[]) => (said.length ? `Changed: ${said.join(', ')}` : 'The first state kept')

async function open(state: string) {
  const project = crypto.randomUUID()
  await sent({ kind: 'open_state', project, source: props.project.id, state })
  show.value = false
  await router.push({ name: 'standing', params: { project } })
}
</script>

<template>
  <NModal
    v-model:show="show"
    preset="card"
    :title="`Earlier states of ${project.name}`"
    :aria-label="`Earlier states of ${project.name}`"
    class="states-dialog"
  >
    <p v-if="!states.length" class="soft">
      None yet. A state is kept each time work on the project has rested for some minutes.
    </p>
    <ul v-else>
      <li v-for="s in states" :key="s.id">
        <strong>{{ momentWords(s.at) }}</strong>
        <span class="soft">{{ what(s.said) }}</span>
        <NButton
          size="small"
          :aria-label="`Open the state of ${momentWords(s.at)} as a copy`"
          @click="open(s.id)"
        >
          Open as a copy
        </NButton>
      </li>
    </ul>
  </NModal>
</template>

<style>
.states-dialog {
  max-width: 760px;
}
</style>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
  padding: 8px 0;
  border-bottom: 2px dashed var(--steel-mid);
}

@media (width <= 620px) {
  li {
    grid-template-columns: 1fr;
  }
}
</style>
