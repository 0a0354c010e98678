<script setup lang="ts">
import { computed, toRef } from 'vue'
import { RouterLink } from 'vue-router'

import type { PlannedUnit, Project } from '@/shared/api/client'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'
import Len from '@/shared/words/Len.vue'
import SizeLadder from '@/shared/drawing/SizeLadder.vue'

import ChoicesPanel from './ChoicesPanel.vue'
import { reachable } from '@/shared/offline/reachable'

import PlanAnswer from './PlanAnswer.vue'
import PlanNotes from './PlanNotes.vue'
import SchoolsTable from './SchoolsTable.vue'
import { usePlanDraft } from './usePlanDraft'

const props = defineProps<{ project: Project; unit: PlannedUnit; colours: Record<string, string> }>()
const drafting = usePlanDraft(toRef(props, 'project'), toRef(props, 'unit'))
const { draft, last, old, problems, measureIn, become, makeBy } = drafting

const ownCut = computed(() => Object.entries(draft).some(([f, v]) => f.startsWith('cuts.') && v.trim()))
const stages = computed(() => {
  const p = last.value?.pictures
  if (!p) return []
  return [
    ...p.stages.map((s) => ({ title: s.title, drawing: s.drawing })),
    { title: 'Sewn and pressed', drawing: p.sewn },
    { title: 'Trimmed', drawing: p.trimmed },
  ]
})
</script>

<template>
  <main id="main" class="plan">
    <h2 class="visually-hidden">Plan</h2>
    <ChoicesPanel
      class="choices"
      :model-value="draft"
      :problems="problems"
      :project="project"
      :unit="unit.id"
      :plan="last?.plan ?? null"
      @measure="measureIn"
      @kind="become"
      @method="makeBy"
    />
    <div class="result" :class="{ old }">
      <p v-if="old" class="sheet" role="status">
        {{
          reachable
            ? 'Something typed cannot be read yet, so these are the last sizes that could be planned.'
            : 'The server is away, so these are the last sizes that it worked out.'
        }}
      </p>
      <PlanAnswer
        v-if="last?.plan"
        :plan="last.plan"
        :fabrics="project.fabrics"
        :on-the-way="last.on_the_way"
      />
      <section v-if="last?.plan" class="sheet" aria-label="Sizes">
        <SizeLadder v-for="l in last.ladders" :key="l.dimension" :ladder="l" class="one" />
        <ul v-if="last.plan.notes.length" class="notes">
          <li v-for="n in last.plan.notes" :key="n.code + n.said" :class="{ serious: n.serious }">
            {{ n.serious ? 'Take care: ' : '' }}{{ n.said }}
          </li>
        </ul>
        <hr class="basted" />
        <div class="stages">
          <figure v-for="s in stages" :key="s.title">
            <CoreDrawing :drawing="s.drawing" :colours="colours" :width="158" />
            <figcaption>{{ s.title }}</figcaption>
          </figure>
          <figure v-if="last.pictures" class="lens">
            <CoreDrawing :drawing="last.pictures.corner" :colours="colours" :width="118" round />
            <figcaption><Len :of="last.plan.margins.right" about /> beside, to trim</figcaption>
          </figure>
        </div>
        <RouterLink :to="{ name: 'log', query: { put: 'trial', project: project.id, unit: unit.id } }"
          >Make one to try, and put down what it came to</RouterLink
        >
      </section>
      <section v-else class="sheet">
        <h2>No plan yet</h2>
        <p>{{ Object.values(problems)[0] ?? 'Give a size to begin.' }}</p>
      </section>
    </div>
    <div v-if="last" class="after" :class="{ old }">
      <SchoolsTable
        v-model="draft.school!"
        v-model:margin="draft.own_margin!"
        :offers="last.offers"
        :own-cut="ownCut"
        :problem="problems.own_margin"
      />
      <PlanNotes v-if="last.plan" :plan="last.plan" :seam-cost="last.seam_cost" />
    </div>
  </main>
</template>

<style scoped>
.plan {
  display: grid;
  grid-template: auto 1fr / clamp(296px, 36vw, 318px) minmax(0, 1fr);
  gap: 12px 14px;
  align-items: start;
}

.choices {
  grid-row: 1 / span 2;
}

.result,
.after {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}

.result.old > :not(:first-child),
.after.old {
  opacity: 0.55;
}

.one + .one {
  margin-top: 12px;
}

/* Figures stand half outside a picture's sides: between two pictures there is room for both. */
.stages {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 18px 20px;
  align-items: end;
}

.stages figure {
  margin: 0;
  display: grid;
  justify-items: center;
  gap: 6px;
}

.stages .lens {
  gap: 14px;
}

figcaption {
  text-align: center;
  color: var(--ink-soft);
  line-height: 1.2;
}

.notes {
  margin: 12px 0 0;
  padding-left: 20px;
}

/* A table of six columns needs the width of both. */
@media (width <= 1000px) {
  .choices {
    grid-row: 1;
  }

  .after {
    grid-column: 1 / -1;
  }
}

@media (width <= 760px) {
  .plan {
    grid-template: none / minmax(0, 1fr);
  }

  .choices {
    grid-row: auto;
  }
}
</style>
