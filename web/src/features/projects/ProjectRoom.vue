<script setup lang="ts">
import { computed, watch, watchEffect } from 'vue'
import { RouterLink, RouterView, useRoute, useRouter } from 'vue-router'

import { Refusal } from '@/shared/api/client'
import { ClockStart } from '@/features/clock'
import { measureInHand } from '@/shared/form/measure'
import { coloursOf } from '@/shared/lib/colours'

import WaitingFor from '@/shared/ui/WaitingFor.vue'

import { useProject } from './api'
import ProjectName from './ProjectName.vue'
import StageRule from './StageRule.vue'
import UnitRail from './UnitRail.vue'

const props = defineProps<{ project: string; unit?: string }>()
const { data, error } = useProject(() => props.project)
const route = useRoute()
const router = useRouter()

watchEffect(() => {
  if (data.value) measureInHand.value = data.value.measure
})
const missing = computed(() => error.value instanceof Refusal)
const units = computed(() => data.value?.units ?? [])
const unit = computed(() => units.value.find((u) => u.id === props.unit))
const colours = computed(() => coloursOf(data.value?.fabrics ?? []))
const layingOut = computed(() => route.matched.some((r) => r.meta.layingOut))
const lost = computed(() => !!data.value && !!props.unit && !unit.value)

/** The stage that is worked here, whose minutes can be timed. */
const stages = {
  cut: 'cut',
  sew: 'sew',
  press: 'press',
  trim: 'trim',
  join: 'join',
  joins: 'join',
  'join-quilt': 'quilt',
} as const
const worked = computed(() => stages[String(route.name) as keyof typeof stages])

// An address without a unit means the first one.
watch(
  [data, () => props.unit, () => route.name],
  () => {
    const first = units.value[0]
    if (data.value?.id !== props.project || props.unit || !first || route.name !== 'project') return
    const name = (route.params.stage as string) || 'plan'
    void router.replace({ name, params: { project: props.project, unit: first.id }, query: route.query })
  },
  { immediate: true },
)
</script>

<template>
  <div v-if="missing" class="page">
    <main id="main" class="sheet">
      <h1>This project is not here</h1>
      <p>It may have been deleted in another window. <RouterLink to="/">Go to the projects</RouterLink></p>
    </main>
  </div>
  <div v-else-if="data" class="page">
    <div class="head">
      <div class="who">
        <ProjectName :project="data" />
        <ClockStart v-if="worked" :project="data.id" :stage="worked" />
      </div>
      <StageRule :project="data.id" :unit="unit?.id" />
    </div>
    <UnitRail v-if="unit && !layingOut" :project="data" :unit="unit" :colours="colours" />
    <main v-if="lost" id="main" class="sheet">
      <h2>This unit is not here</h2>
      <p>
        It may have been removed in another window.
        <RouterLink :to="{ name: 'standing', params: { project: data.id } }">Go to the project</RouterLink>
      </p>
    </main>
    <RouterView v-else v-slot="{ Component }">
      <component
        :is="Component"
        v-if="unit || layingOut || !units.length"
        :key="layingOut ? data.id : (unit?.id ?? data.id)"
        :project="data"
        :unit="unit"
        :colours="colours"
      />
    </RouterView>
  </div>
  <div v-else class="page"><WaitingFor what="this project" /></div>
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
  grid-template-columns: minmax(200px, 1fr) minmax(0, 1000px);
  gap: 24px;
  align-items: center;
  margin-bottom: 10px;
}

.who {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  align-items: baseline;
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
