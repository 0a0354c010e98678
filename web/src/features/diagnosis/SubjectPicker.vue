<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { NSelect } from 'naive-ui'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { api, type Project, taken } from '@/shared/api/client'
import { useSteady } from '@/shared/form/steady'
import type { Of } from '@/shared/offline/outgoing'
import { kindWords } from '@/shared/words/words'

/** What is measured and diagnosed: a kind of unit, a block, or sizes typed by hand. The readings are one pool. */
const props = defineProps<{ project: Project; of: Of }>()
const route = useRoute()
const router = useRouter()
const { data: sheet } = useQuery(
  computed(() => ({
    queryKey: ['blocks', props.project.id],
    queryFn: () =>
      taken(api.GET('/api/projects/{key}/blocks', { params: { path: { key: props.project.id } } })),
  })),
)
const options = useSteady(() => [
  {
    type: 'group' as const,
    label: 'Blocks',
    key: 'blocks',
    children: (sheet.value?.blocks ?? []).map((b) => ({
      value: `blocks ${b.id}`,
      label: `${b.view.name}, finishing ${b.finished.pretty}`,
    })),
  },
  {
    type: 'group' as const,
    label: 'Units, in a row',
    key: 'units',
    children: props.project.units.map((u) => ({
      value: `units ${u.id}`,
      label: kindWords[u.kind]?.name ?? u.kind,
    })),
  },
  { value: 'hand', label: 'By hand, without a project' },
])
const value = computed(() => `${props.of.subject} ${props.of.of}`)
const stage = computed(() => (String(route.name).startsWith('measure') ? 'measure' : 'diagnose'))

function go(to: string) {
  const [subject, id] = to.split(' ')
  if (subject === 'hand') return router.push({ name: 'wrong', query: { see: 'by-hand' } })
  const project = props.project.id
  return subject === 'blocks'
    ? router.push({ name: `${stage.value}-block`, params: { project, block: id! } })
    : router.push({ name: stage.value, params: { project, unit: id! } })
}
</script>

<template>
  <label class="picker">
    <span>{{ stage === 'measure' ? 'Measure' : 'Diagnose' }}</span>
    <NSelect
      :value="value"
      :options="options"
      :input-props="{ 'aria-label': 'What is measured' }"
      filterable
      @update:value="go"
    />
  </label>
</template>

<style scoped>
.picker {
  display: grid;
  grid-template-columns: auto minmax(0, 420px);
  justify-content: start;
  gap: 12px;
  align-items: center;
  color: var(--chalk);
  font-weight: 600;
}
</style>
