<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { NButton } from 'naive-ui'

import type { PlannedUnit, Project } from '@/shared/api/client'
import LengthInput from '@/shared/form/LengthInput.vue'
import SelectInput from '@/shared/form/SelectInput.vue'
import { useOutbox } from '@/shared/offline/outbox'
import PlanMissing from '@/shared/ui/PlanMissing.vue'
import WaitingFor from '@/shared/ui/WaitingFor.vue'
import { markingWords, plural } from '@/shared/words/words'
import { Refusal } from '@/shared/api/client'

import { type Lot, useUnitBench } from './api'
import BenchSplit from './BenchSplit.vue'
import LotList from './LotList.vue'
import StepCard from './StepCard.vue'
import { useDone } from './useDone'
import WhySpoiled from './WhySpoiled.vue'

/** Sewing or pressing one kind of unit: its lots, and the steps of the one in hand. */
const props = defineProps<{
  project: Project
  unit: PlannedUnit
  colours: Record<string, string>
  stage: 'sew' | 'press'
}>()
const { data, error } = useUnitBench(() => props.unit.id)
const { isDone, toggle, count, spoiled, sayWhy } = useDone(
  () => props.project.id,
  'units',
  () => props.unit.id,
)
const { tried } = useOutbox()

const runs = computed(() => (data.value?.runs ?? []).filter((r) => r.lots.length || !r.earlier))
const all = computed(() => runs.value.flatMap((r) => r.lots.map((lot) => ({ run: r, lot }))))
const open = (lot: Lot, steps: readonly { key: string }[]) =>
  steps.some((s) => !isDone(lot.number, s.key, lot.done))
const picked = ref(0)
watch(
  all,
  (found) => {
    if (found.some((f) => f.lot.number === picked.value)) return
    picked.value = (found.find((f) => open(f.lot, f.run.steps)) ?? found[0])?.lot.number ?? 0
  },
  { immediate: true },
)
const now = computed(() => all.value.find((f) => f.lot.number === picked.value))
const steps = computed(() => now.value?.run.steps ?? runs.value[0]?.steps ?? [])
const shown = computed(() =>
  steps.value
    .map((s, i) => ({ s, n: i + 1 }))
    .filter(({ s }) => props.stage === 'sew' || s.stage === 'press'),
)
const cautions = computed(() =>
  props.stage === 'sew' ? (data.value?.sew_cautions ?? []) : (data.value?.press_cautions ?? []),
)
const markings = computed(() => Object.entries(markingWords).map(([value, w]) => ({ value, label: w.name })))
const marked = computed(() => steps.value.some((s) => s.key.startsWith('mark')))
const goes = ref('')
const problem = ref('')
watch(
  () => data.value?.lot_goes,
  (n) => (goes.value = n ? String(n) : ''),
  { immediate: true },
)
async function choose(changes: { marking?: string; lot_goes?: string }) {
  try {
    const edit = { changes, seen: {} } as { changes: object; seen: object }
    await tried({
      kind: 'change_handling',
      project: props.project.id,
      unit: props.unit.id,
      ...edit,
    })
    problem.value = ''
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    problem.value = e.problem.errors[0]?.message ?? e.message
  }
}
const keepGoes = () => {
  if (goes.value !== String(data.value?.lot_goes ?? '')) void choose({ lot_goes: goes.value })
}
const allTicked = computed(() => (now.value ? !open(now.value.lot, now.value.run.steps) : false))
/** The rest of a lot in one act, for one who sews without ticking. */
function whole() {
  const at = now.value
  if (!at) return
  for (const s of at.run.steps)
    if (!isDone(at.lot.number, s.key, at.lot.done)) toggle(at.lot.number, s.key, s.stage, at.lot.done)
}
</script>

<template>
  <main id="main">
    <h2 class="visually-hidden">{{ stage === 'sew' ? 'Sew' : 'Press' }}</h2>
    <PlanMissing v-if="error" :error="error" :project="project.id" :unit="unit.id" />
    <BenchSplit
      v-else-if="data"
      :project="project.id"
      subject="units"
      :of="unit.id"
      label="Lots"
      :begin="!!all.length"
      :cautions="cautions"
    >
      <template #first>
        <p class="big" role="status">
          {{ stage === 'sew' ? data.tally.sewn : data.tally.pressed }} of {{ data.tally.to_make }}
        </p>
        <p>
          {{ stage === 'sew' ? 'sewn' : 'sewn and pressed'
          }}<template v-if="data.tally.ready">; {{ data.tally.ready }} more were there already</template
          ><template v-if="data.tally.spoiled">; {{ data.tally.spoiled }} spoiled, to be made again</template
          >.
        </p>
      </template>
      <template #side>
        <template v-if="stage === 'sew' && steps.length">
          <hr class="basted" />
          <p>
            <RouterLink :to="{ name: 'lot', params: { project: project.id, unit: unit.id } }"
              >Measure one in so many</RouterLink
            >
            while a lot is sewn.
          </p>
          <div v-if="marked" class="marking">
            <strong>Marking</strong>
            <SelectInput
              :model-value="data.marking"
              labelled="Marking"
              :options="markings"
              @update:model-value="choose({ marking: String($event) })"
            />
          </div>
          <p v-if="marked" class="soft">{{ markingWords[data.marking]?.line }}</p>
          <LengthInput
            v-model="goes"
            label="Sets in a lot"
            numeric
            :placeholder="String(data.usual_goes)"
            :problem="problem"
            hint="What is begun keeps its size."
            @enter="keepGoes"
            @focusout="keepGoes"
          />
        </template>
        <hr class="basted" />
        <template v-for="(r, i) in runs" :key="i">
          <p v-if="r.said" class="soft">{{ r.said }}</p>
          <LotList
            v-model="picked"
            :lots="r.lots"
            :steps="r.steps"
            :is-done="(lot, step) => isDone(lot.number, step, lot.done)"
            one="unit"
            :per="r.per_go"
          />
        </template>
        <p v-if="!all.length && steps.length" class="soft">All that is wanted is there: nothing to begin.</p>
        <template v-if="now">
          <hr class="basted" />
          <NButton v-if="!allTicked" block @click="whole"
            >Lot {{ now.lot.number }} is done as a whole</NButton
          >
          <NButton block class="spoiled" @click="count('spoiled', 1, 'One unit is put down as spoiled.')">
            One is spoiled
          </NButton>
          <WhySpoiled v-if="spoiled" @why="sayWhy" @leave="spoiled = ''" />
        </template>
        <hr class="basted" />
        <p v-if="stage === 'press' && unit.blocks.length">
          <RouterLink :to="{ name: 'joins', params: { project: project.id }, query: { to: 'press' } }"
            >The pressing map of the block</RouterLink
          >
        </p>
        <p v-for="b in data.bias" :key="b" class="serious">{{ b }}</p>
      </template>
      <ol v-if="shown.length" class="steps">
        <li v-if="stage === 'sew' && data.pairs.length" class="sheet">
          <p v-for="p in data.pairs" :key="p">{{ p }}</p>
        </li>
        <StepCard
          v-for="{ s, n } in shown"
          :key="s.key"
          :step="s"
          :n="n"
          :times="s.times * (now?.lot.goes ?? 1)"
          :colours="colours"
          :ripper="data.ripper_cautions"
          :done="now ? isDone(now.lot.number, s.key, now.lot.done) : undefined"
          @toggle="now && toggle(now.lot.number, s.key, s.stage, now.lot.done)"
        />
      </ol>
      <section v-else class="sheet">
        <h2>Nothing to {{ stage }} in it</h2>
        <p>
          This is one piece of cloth: cut to size it is ready to be joined.
          {{ plural(data.tally.to_make, 'piece') }} wanted.
        </p>
      </section>
    </BenchSplit>
    <WaitingFor v-else what="this unit at the bench" />
  </main>
</template>

<style scoped>
.spoiled {
  margin-top: 8px;
}
</style>
