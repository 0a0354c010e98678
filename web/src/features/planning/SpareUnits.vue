<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'

import { api, type Project, Refusal, taken } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'

/** Small units that fall off this one and can be kept, and units in stock that would do in its place. */
const props = defineProps<{ project: Project; unit: string }>()
const { tried } = useOutbox()
const client = useQueryClient()
const problem = ref('')
const planned = computed(() => props.project.units.find((u) => u.id === props.unit))
const { data } = useQuery(
  computed(() => ({
    // Whatever the unit is made of and however many: another size drops other corners.
    queryKey: ['spares', props.unit, props.project.updated_at],
    queryFn: () => taken(api.GET('/api/units/{key}/spares', { params: { path: { key: props.unit } } })),
  })),
)

async function act(what: { kind: 'keep_spares' } | { kind: 'use_spares'; stock: string }) {
  try {
    await tried({ ...what, project: props.project.id, unit: props.unit })
    problem.value = ''
    void client.invalidateQueries({ queryKey: ['spares'] })
    void client.invalidateQueries({ queryKey: ['project', props.project.id] })
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    problem.value = error.message
  }
}
</script>

<template>
  <div v-if="planned && (data?.leaves || data?.there.length || problem)" class="spares">
    <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
    <p v-if="data?.leaves">
      {{ data.leaves }}
      <NButton size="small" @click="act({ kind: 'keep_spares' })">Keep them in stock</NButton>
    </p>
    <p v-for="t in data?.there" :key="t.stock">
      {{ t.said }}
      <NButton size="small" @click="act({ kind: 'use_spares', stock: t.stock })"
        >Use {{ t.use }} here</NButton
      >
    </p>
  </div>
</template>

<style scoped>
.spares {
  display: grid;
  gap: 6px;
  line-height: 1.3;
}
</style>
