<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed, ref, toRef } from 'vue'

import type { PlannedUnit, Project } from '@/shared/api/client'
import PlanMissing from '@/shared/ui/PlanMissing.vue'

import { useCheck } from './api'
import QuickEntry from './QuickEntry.vue'
import ReadingsLadder from './ReadingsLadder.vue'
import ReadingsTable from './ReadingsTable.vue'
import SheetDialog from './SheetDialog.vue'

const props = defineProps<{ project: Project; unit: PlannedUnit; colours: Record<string, string> }>()
const { data, error } = useCheck(() => props.unit.id)
const unitId = computed(() => props.unit.id)
const lit = ref<string | null>(null)
const pasting = ref(false)

const project = toRef(props, 'project')
</script>

<template>
  <main id="main">
    <h2 class="visually-hidden">Check</h2>
    <PlanMissing v-if="error && !data" :error="error" :project="project.id" :unit="unit.id" />
    <div v-else-if="data" class="check">
      <QuickEntry :unit="unitId" :targets="data.targets" />
      <div class="found">
        <ReadingsLadder :check="data" :lit="lit" />
        <section class="sheet" aria-label="Readings">
          <div class="head">
            <h3>Readings</h3>
            <div class="sheets">
              <NButton size="small" @click="pasting = true">Paste or open CSV</NButton>
              <a class="download" :href="`/api/units/${unitId}/readings.csv`" download>Save as CSV</a>
            </div>
          </div>
          <ReadingsTable :unit="unitId" :readings="data.readings" @light="lit = $event" />
        </section>
      </div>
      <SheetDialog v-model:show="pasting" :unit="unitId" />
    </div>
    <p v-else class="waiting">Fetching the readings…</p>
  </main>
</template>

<style scoped>
.check {
  display: grid;
  grid-template-columns: 330px minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}

.found {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}

.head,
.sheets {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 14px;
}

.waiting {
  color: var(--chalk);
}

@media (width <= 960px) {
  .check {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
