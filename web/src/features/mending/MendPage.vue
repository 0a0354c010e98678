<script setup lang="ts">
import { RouterLink } from 'vue-router'

import { ReadingsLadder, useCheck } from '@/features/checking'
import type { PlannedUnit, Project } from '@/shared/api/client'
import PlanMissing from '@/shared/ui/PlanMissing.vue'

import AdviceList from './AdviceList.vue'
import { useDiagnosis } from './api'
import CausesPicture from './CausesPicture.vue'
import EvidenceTable from './EvidenceTable.vue'
import VerdictSheet from './VerdictSheet.vue'

const props = defineProps<{ project: Project; unit: PlannedUnit; colours: Record<string, string> }>()
const { data, error } = useDiagnosis(() => props.unit.id)
const { data: check } = useCheck(() => props.unit.id)
</script>

<template>
  <main id="main">
    <h2 class="visually-hidden">Mend</h2>
    <p class="over">
      A row of units, judged here. For a joined block, its tips and its crossings:
      <RouterLink :to="{ name: 'blocks', params: { project: project.id }, query: { to: 'sewn' } }"
        >A block as sewn</RouterLink
      >
    </p>
    <PlanMissing v-if="error && !data" :error="error" :project="project.id" :unit="unit.id" />
    <section v-else-if="data?.verdict.status === 'no_readings'" class="sheet none">
      <h2>Nothing measured yet</h2>
      <p>
        A judgement rests on readings. Measure two or three trimmed units, one joined row, and from raw edge
        to stitching on the back of a seam.
      </p>
      <p>
        <RouterLink :to="{ name: 'check', params: { project: project.id, unit: unit.id } }"
          >Take down the first reading</RouterLink
        >
      </p>
    </section>
    <div v-else-if="data" class="mend">
      <VerdictSheet
        :verdict="data.verdict"
        :estimates="data.estimates"
        :target="data.row_target"
        :project="project.id"
        :unit="unit.id"
      />
      <CausesPicture :verdict="data.verdict" :estimates="data.estimates" />
      <AdviceList title="This row" :advice="data.this_row" none="Nothing to do to this row." />
      <AdviceList
        title="The rest of the batch"
        :advice="data.the_rest"
        :none="
          data.verdict.status === 'unsettled'
            ? 'Change nothing yet: first take the reading that settles it.'
            : 'Go on as you are.'
        "
      />
      <ReadingsLadder v-if="check" class="wide" :check="check" />
      <EvidenceTable class="wide" :evidence="data.evidence" />
    </div>
    <p v-else class="waiting">Weighing the readings…</p>
  </main>
</template>

<style scoped>
.mend {
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 7fr);
  gap: 12px;
  align-items: stretch;
}

.over,
.over a {
  color: var(--chalk);
  margin-bottom: 10px;
}

.wide {
  grid-column: 1 / -1;
}

.none {
  display: grid;
  gap: 12px;
  max-width: 640px;
}

.waiting {
  color: var(--chalk);
}

@media (width <= 960px) {
  .mend {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
