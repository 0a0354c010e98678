<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, watch } from 'vue'
import { useRoute } from 'vue-router'

import { api, taken } from '@/shared/api/client'

/** Of what hardly any more can be kept, of the project one is in or of all of them: told before somebody is refused. */
const route = useRoute()
const project = computed(() => (route.params.project as string | undefined) || undefined)
const { data, refetch } = useQuery(
  computed(() => ({
    queryKey: ['nearly-full', project.value ?? ''],
    queryFn: () =>
      taken(api.GET('/api/nearly-full', { params: { query: { project: project.value ?? null } } })),
    // A project that is not here has nothing that is full; its page says so.
    retry: false,
  })),
)
watch(
  () => route.path,
  () => void refetch(),
)
</script>

<template>
  <div aria-live="polite">
    <p v-for="line in data?.lines ?? []" :key="line" class="full">{{ line }}</p>
  </div>
</template>

<style scoped>
.full {
  margin: 0;
  padding: 8px 24px;
  background: var(--oilskin);
  color: var(--ink);
}
</style>
