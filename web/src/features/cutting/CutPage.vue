<script setup lang="ts">
import TickBox from '@/shared/form/TickBox.vue'
import { useQueryClient } from '@tanstack/vue-query'
import { NButton, NProgress } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'

import { Refusal, type Project, type Schemas } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'
import { usePreference } from '@/shared/offline/preference'
import { goalWords } from '@/shared/words/words'
import Choice from '@/shared/form/Choice.vue'

import { begin, type Sheet, stop, useCutting } from './api'
import BuyingSheet from './BuyingSheet.vue'
import ClothSheet from './ClothSheet.vue'
import ListsSheet from './ListsSheet.vue'
import PaperSheet from './PaperSheet.vue'
import PilesSheet from './PilesSheet.vue'
import ShelfSheet from './ShelfSheet.vue'
import StockRows from './StockRows.vue'

/** Which piece comes from where: stock, the plan cut from it, strip by strip, and what to buy. */
const props = defineProps<{ project: Project; colours: Record<string, string> }>()
const { data } = useCutting(() => props.project.id)
const client = useQueryClient()
const { tried } = useOutbox()
/** What a plan is to go for, as it was last chosen here; a plan that is there says it itself. */
const asked = usePreference(`cutting.${props.project.id}`, { goal: 'least', along: false })
const problem = ref('')
const plan = computed(() => data.value?.plan)
const left = computed(() => data.value?.left ?? 0)
/** Whether any cloth was cut. */
const begun = computed(() => data.value?.piles.some((p) => p.cut) ?? false)
const name = (role: string) => props.project.fabrics.find((f) => f.role === role)?.name ?? role.toUpperCase()

watch(
  () => plan.value?.goal,
  (now) => now && (asked.value.goal = now),
  { immediate: true },
)

async function run(what: () => Promise<Sheet>) {
  try {
    client.setQueryData(['cutting', props.project.id], await what())
    problem.value = ''
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    problem.value = error.message
  }
}
type Act = { kind: 'mark_cut' | 'undo_cutting' } | { kind: 'keep_over' | 'put_triangles_by'; letter: string }
async function act(what: Act) {
  try {
    await tried({ ...what, project: props.project.id })
    problem.value = ''
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    problem.value = error.message
  }
}
const goals = Object.entries(goalWords).map(([value, label]) => ({ value, label }))
const start = () =>
  run(() => begin(props.project.id, asked.value.goal as Schemas['GoalEnum'], asked.value.along))
</script>

<template>
  <main id="main" class="cut">
    <h2 class="visually-hidden">Cut</h2>
    <div class="side">
      <StockRows v-if="data" :project="project" :stock="data.stock" />
      <ShelfSheet :project="project" />
      <BuyingSheet :project="project" />
      <PaperSheet :project="project" />
      <ListsSheet :project="project" />
    </div>
    <div class="result">
      <section class="sheet" aria-label="Cutting plan">
        <div class="ask">
          <Choice v-model="asked.goal" label="Go for" :options="goals" />
          <TickBox v-model="asked.along" class="tick">borders along the selvedge</TickBox>
          <NButton v-if="!data?.job.running" type="primary" @click="start">{{
            begun ? `Plan the ${left} ${left === 1 ? 'piece' : 'pieces'} left` : 'Plan the cuts'
          }}</NButton>
          <NButton v-else @click="run(() => stop(project.id))">Stop, keep the best so far</NButton>
        </div>
        <NProgress
          v-if="data?.job.running"
          type="line"
          :percentage="Math.round(100 * data.job.share)"
          :show-indicator="false"
          role="progressbar"
          aria-label="Time used for looking"
          :aria-valuenow="Math.round(100 * data.job.share)"
        />
        <p v-if="problem || data?.job.failed" class="serious" role="alert">
          {{ problem || data?.job.failed }}
        </p>
        <div v-if="data?.waiting.length" class="changed serious">
          <p>Not among the piles yet:</p>
          <ul>
            <li v-for="w in data.waiting" :key="w">{{ w }}</li>
          </ul>
        </div>
        <p v-if="data?.last" class="soft">
          {{ data.last }}
          <RouterLink :to="{ name: 'measured', params: { project: project.id } }">As they measure</RouterLink>
        </p>
        <template v-if="plan">
          <p role="status" class="answer">
            <strong>{{ plan.costs[0] }}</strong>
            {{
              plan.proven
                ? 'Proven: no plan of strips costs less.'
                : plan.missing.length
                  ? ''
                  : `At most ${plan.gap_percent || 0.1}% above the best there can be.`
            }}
          </p>
          <p v-if="plan.costs[1]" class="soft">{{ plan.costs[1] }}</p>
          <div v-if="plan.changed.length" class="changed" role="status">
            <p class="serious">Since this plan was made:</p>
            <ul>
              <li v-for="c in plan.changed" :key="c">{{ c }}</li>
            </ul>
            <p class="soft">
              What is ticked stays cut. Planning again takes only what is left, from the cloth that is left.
            </p>
          </div>
          <p v-if="data?.binding" class="soft">{{ data.binding }}</p>
          <p v-for="f in plan.flaws" :key="f" class="serious" role="alert">{{ f }}</p>
          <ul v-if="plan.missing.length" class="missing" role="alert">
            <li v-for="m in plan.missing" :key="m.letter">
              Short of {{ m.count }} {{ m.letter }}, {{ m.width.pretty }} × {{ m.height.pretty }} of
              {{ name(m.fabric) }}: no cloth left that is large enough.
            </li>
          </ul>
          <NButton size="small" @click="act({ kind: 'mark_cut' })">
            All of it is cut: use up the stock, keep the scraps
          </NButton>
        </template>
        <p v-else-if="begun && !left" role="status" class="answer">Everything that is wanted is cut.</p>
        <p v-if="data?.undo" class="back">
          <NButton size="small" @click="act({ kind: 'undo_cutting' })"
            >Undo: as it was {{ data.undo }}</NButton
          >
        </p>
      </section>
      <PilesSheet
        v-if="data"
        :piles="data.piles"
        :project="project"
        @scraps="act({ kind: 'keep_over', letter: $event })"
        @triangles="act({ kind: 'put_triangles_by', letter: $event })"
      />
      <ClothSheet
        v-for="(c, i) in plan?.cloths ?? []"
        :key="i"
        :cloth="c"
        :project="project"
        :plan="plan?.name ?? ''"
        :colours="colours"
      />
    </div>
  </main>
</template>

<style scoped>
.cut {
  display: grid;
  grid-template-columns: 404px minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}

.side,
.result {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}

.ask {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 22px;
  align-items: end;
}

.tick {
  align-items: center;
  min-height: 40px;
}

.answer {
  margin: 12px 0 8px;
}

.changed {
  margin: 8px 0 12px;
}

.changed ul {
  margin: 4px 0;
  padding-left: 20px;
}

.back {
  margin: 10px 0 0;
}

.missing {
  margin: 0 0 10px;
  padding-left: 20px;
  color: var(--buoy);
}

@media (width <= 1000px) {
  .cut {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
