<script setup lang="ts">
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import type { PlannedUnit, Project } from '@/shared/api/client'
import Choice from '@/shared/ui/Choice.vue'
import CoreDrawing from '@/shared/ui/CoreDrawing.vue'
import Len from '@/shared/ui/Len.vue'
import PlanMissing from '@/shared/ui/PlanMissing.vue'

import { useTrim } from './api'

const props = defineProps<{ project: Project; unit: PlannedUnit; colours: Record<string, string> }>()
const { data, error } = useTrim(() => props.unit.id)
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
    <PlanMissing v-if="error" :error="error" :project="project.id" />
    <div v-else-if="data && recipe" class="trim">
      <section class="sheet target" aria-label="Target">
        <p class="soft">Trim to</p>
        <p class="big">{{ data.target.pretty }}</p>
        <p>
          unfinished. Expect <Len :of="data.raw" about /> raw, so <Len :of="data.margin" about /> off each
          side. It finishes <Len :of="data.finished" about />.
        </p>
        <hr class="basted" />
        <Choice v-model="way" label="Way of trimming" :options="ways" />
        <p>{{ recipe.when }}</p>
        <p><strong>Ruler:</strong> {{ recipe.ruler }}</p>
        <p v-if="recipe.opens_to.exact !== data.target.exact" class="serious">
          This way the unit opens to <Len :of="recipe.opens_to" about />.
        </p>
        <hr class="basted" />
        <p v-for="c in recipe.cautions" :key="c" class="caution">{{ c }}</p>
      </section>
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
      <section class="sheet legend" aria-label="Marks in the drawings">
        <span><i class="ruler" /> ruler</span>
        <span><i class="diagonal" /> its 45-degree or diagonal line</span>
        <span><i class="blade" /> cut here</span>
        <span><i class="fresh" /> fresh edge</span>
        <span><i class="stitch" /> stitching</span>
      </section>
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
  grid-row: span 2;
}

.target .basted {
  margin: 6px 0;
}

.big {
  font-size: 58px;
  line-height: 1;
  font-weight: 600;
}

.caution {
  border-left: 5px solid var(--oilskin);
  padding-left: 10px;
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

.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 24px;
  padding: 8px 18px;
}

.legend i {
  display: inline-block;
  width: 34px;
  height: 0;
  vertical-align: 4px;
  margin-right: 4px;
  border-top: 3px solid var(--ink);
}

.legend .ruler {
  height: 16px;
  vertical-align: -3px;
  border: 2px solid var(--ink);
  background: rgb(214 236 240 / 60%);
}

.legend .diagonal {
  border-top: 2px dashed #0b3a41;
}

.legend .blade {
  border-top: 3px dashed var(--buoy);
}

.legend .fresh {
  border-top: 5px solid var(--oilskin);
}

.legend .stitch {
  border-top: 2px dotted var(--ink);
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
