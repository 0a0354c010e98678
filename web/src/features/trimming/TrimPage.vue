<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'

import type { PlannedUnit, Project } from '@/shared/api/client'
import { plural } from '@/shared/words/words'
import Choice from '@/shared/form/Choice.vue'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'
import Len from '@/shared/words/Len.vue'
import PlanMissing from '@/shared/ui/PlanMissing.vue'

import { CountDown } from '@/features/bench'
import { useBench } from '@/features/projects'

import { useTrim } from './api'
import ExpectationSheet from './ExpectationSheet.vue'
import MarksLegend from './MarksLegend.vue'

const props = defineProps<{ project: Project; unit: PlannedUnit; colours: Record<string, string> }>()
const { data, error } = useTrim(() => props.unit.id)
const { data: bench } = useBench(() => props.project.id)
const tally = computed(() => bench.value?.units.find((u) => u.unit === props.unit.id)?.tally)
const route = useRoute()
const router = useRouter()

/** Which way is part of the address, so that reloading keeps it. */
const way = computed({
  get: () =>
    data.value?.recipes.find((r) => r.code === route.query.way)?.code ?? data.value?.recipes[0]?.code ?? '',
  set: (code) => void router.replace({ query: { ...route.query, way: code } }),
})
const recipe = computed(() => data.value?.recipes.find((r) => r.code === way.value))
const ways = computed(() => (data.value?.recipes ?? []).map((r) => ({ value: r.code, label: r.title })))
</script>

<template>
  <main id="main">
    <h2 class="visually-hidden">Trim</h2>
    <PlanMissing v-if="error" :error="error" :project="project.id" :unit="unit.id" />
    <div v-else-if="data && recipe" class="trim">
      <section class="sheet target" aria-label="Target">
        <p class="soft">Trim to</p>
        <p class="big" :class="{ two: !data.square }">
          {{ data.target.pretty }}<template v-if="!data.square"> × {{ data.target_height.pretty }}</template>
        </p>
        <p>
          unfinished. Expect <Len :of="data.margin" about /> or more to come off each side.
          <template v-if="data.margin_read">
            The {{ plural(data.raw_readings, 'raw unit') }} measured leave
            <Len :of="data.margin_read" about />.
          </template>
        </p>
        <p v-if="data.room_percent !== null && data.room_percent < 99" class="serious">
          By your own seam only {{ data.room_percent }} in 100 can be trimmed on all four sides.
        </p>
        <p v-for="w in data.on_the_way" :key="w">{{ w }}</p>
        <hr class="basted" />
        <RouterLink
          v-if="tally"
          :to="{
            name: 'bench',
            params: { project: project.id },
            query: { subject: 'units', of: unit.id, at: 'trim' },
          }"
          >Trim in one sitting</RouterLink
        >
        <CountDown v-if="tally" :project="project.id" :unit="unit.id" :tally="tally" />
        <hr class="basted" />
        <Choice v-if="ways.length > 1" v-model="way" label="Way of trimming" :options="ways" />
        <p>{{ recipe.when }}</p>
        <p><strong>Ruler:</strong> {{ recipe.ruler }}</p>
        <p v-for="w in recipe.warnings" :key="w.code" :class="{ serious: w.serious }">{{ w.said }}</p>
        <p v-if="recipe.opens" class="serious">{{ recipe.opens }}</p>
        <p class="soft">
          For a {{ data.cutter }}-handed cutter.
          <RouterLink :to="{ name: 'settings' }">Hand and rulers</RouterLink>
        </p>
        <hr class="basted" />
        <p v-for="c in recipe.cautions" :key="c" class="caution">{{ c }}</p>
      </section>
      <div class="work">
        <ol class="steps">
          <li v-for="(s, i) in recipe.steps" :key="s.title" class="sheet step">
            <CoreDrawing :drawing="s.drawing" :colours="colours" :width="250" />
            <div>
              <h3>
                <b aria-hidden="true">{{ i + 1 }}</b> {{ s.title }}
              </h3>
              <p>{{ s.how }}</p>
              <p class="look"><strong>Look for:</strong> {{ s.look_for }}</p>
            </div>
          </li>
        </ol>
        <MarksLegend />
        <ExpectationSheet :expectation="data.expectation" :colours="colours" />
      </div>
    </div>
    <p v-else class="waiting">Laying out the recipe…</p>
  </main>
</template>

<style scoped>
.trim {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}

.target {
  display: grid;
  gap: 8px;
}

.target .basted {
  margin: 6px 0;
}

.big {
  font-size: 58px;
  line-height: 1;
  font-weight: 600;
}

.big.two {
  font-size: 36px;
  white-space: nowrap;
}

.caution {
  border-left: 5px solid var(--oilskin);
  padding-left: 10px;
}

.work {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}

.steps {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}

.step {
  display: grid;
  grid-template-columns: minmax(0, 250px) minmax(0, 1fr);
  gap: 16px;
  align-items: center;
  padding: 10px 16px;
}

/* The ruler goes on past what is shown. */
.step :deep(.drawing) {
  overflow: hidden;
}

.step h3 {
  display: flex;
  gap: 8px;
  align-items: start;
  margin-bottom: 6px;
}

.step b {
  display: inline-block;
  min-width: 1.5em;
  text-align: center;
  background: var(--ink);
  color: #fff;
}

.look {
  margin-top: 8px;
}

.waiting {
  color: var(--chalk);
}

@media (width <= 1080px) {
  .trim,
  .steps {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media (width <= 560px) {
  .step {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
