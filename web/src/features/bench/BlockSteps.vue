<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { type Project, Refusal } from '@/shared/api/client'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'
import WaitingFor from '@/shared/ui/WaitingFor.vue'

import { type Lot, useBlockBench } from './api'
import BenchSplit from './BenchSplit.vue'
import LotList from './LotList.vue'
import StepCard from './StepCard.vue'
import { useDone } from './useDone'

/** Joining or pressing a block: each copy of it in turn, section by section. */
const props = defineProps<{
  project: Project
  block: string
  colours: Record<string, string>
  stage: 'join' | 'press'
}>()
const { data, error } = useBlockBench(() => props.block)
const { isDone, toggle } = useDone(
  () => props.project.id,
  'blocks',
  () => props.block,
)
const steps = computed(() => data.value?.steps ?? [])
const open = (lot: Lot) => steps.value.some((s) => !isDone(lot.number, s.key, lot.done))
const picked = ref(0)
watch(
  () => data.value?.lots,
  (lots) => {
    if (!lots || lots.some((l) => l.number === picked.value)) return
    picked.value = (lots.find(open) ?? lots[0])?.number ?? 0
  },
  { immediate: true },
)
const now = computed(() => data.value?.lots.find((l) => l.number === picked.value))
const shown = computed(() =>
  steps.value
    .map((s, i) => ({ s, n: i + 1 }))
    .filter(({ s }) => props.stage === 'join' || s.stage === 'press'),
)
const cautions = computed(() =>
  props.stage === 'join' ? (data.value?.join_cautions ?? []) : (data.value?.press_cautions ?? []),
)
const inner = (s: { block: string }) => (s.block === data.value?.name ? '' : `${s.block}: `)
const heading = (s: { block: string; title: string; stage: string }) =>
  `${s.stage === 'press' ? 'Press ' : ''}${inner(s)}${s.title}`
</script>

<template>
  <section v-if="error instanceof Refusal" class="sheet" role="alert">
    <h2>This cannot be joined yet</h2>
    <p>{{ error.message }}</p>
  </section>
  <BenchSplit
    v-else-if="data"
    :project="project.id"
    subject="blocks"
    :of="block"
    label="Blocks"
    :begin="!!data.lots.length"
    :cautions="cautions"
  >
    <template #first>
      <p class="big" role="status">{{ data.joined }} of {{ data.count }}</p>
      <p>{{ data.count === 1 ? 'block' : 'blocks' }} joined and pressed.</p>
      <p v-for="c in data.colourways" :key="c">{{ c }}</p>
    </template>
    <template #side>
      <hr class="basted" />
      <LotList
        v-model="picked"
        :lots="data.lots"
        :steps="steps"
        :is-done="(lot, step) => isDone(lot.number, step, lot.done)"
        one="block"
        :per="1"
      />
      <hr class="basted" />
    </template>
    <ol class="steps" :aria-label="stage === 'join' ? 'Steps of joining' : 'Steps of pressing'">
      <StepCard
        v-for="{ s, n } in shown"
        :key="s.key"
        :step="{ ...s, title: heading(s) }"
        :n="n"
        :times="s.times * (now?.goes ?? 1)"
        :colours="colours"
        :done="now ? isDone(now.number, s.key, now.done) : undefined"
        @toggle="now && toggle(now.number, s.key, s.stage, now.done)"
      />
      <li v-if="stage === 'join' && data.trim" class="sheet whole">
        <h3>Trimming it whole, where it came out too large</h3>
        <p>{{ data.trim.when }}</p>
        <p><strong>Ruler:</strong> {{ data.trim.ruler }}</p>
        <p v-for="w in data.trim.warnings" :key="w.code" :class="{ serious: w.serious }">{{ w.said }}</p>
        <ol class="four">
          <li v-for="(s, i) in data.trim.steps" :key="s.title">
            <CoreDrawing :drawing="s.drawing" :colours="colours" :width="200" />
            <h4>{{ i + 1 }}. {{ s.title }}</h4>
            <p>{{ s.how }}</p>
            <p class="caution">{{ s.look_for }}</p>
          </li>
        </ol>
        <p v-for="c in data.trim.cautions" :key="c" class="caution">{{ c }}</p>
      </li>
    </ol>
  </BenchSplit>
  <WaitingFor v-else what="this block at the bench" />
</template>

<style scoped>
.caution {
  border-left: 5px solid var(--oilskin);
  padding-left: 10px;
}

.whole {
  display: grid;
  gap: 6px;
}

.four {
  list-style: none;
  margin: 6px 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: 16px;
}

.four :deep(.drawing) {
  overflow: hidden;
}

h4 {
  margin: 6px 0 2px;
  font-size: 17px;
}
</style>
