<script setup lang="ts">
import { NButton } from 'naive-ui'
import { useWindowPreference } from '@/shared/offline/preference'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'

import { type Project, Refusal } from '@/shared/api/client'
import { schoolWords } from '@/shared/words/words'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'
import RangeInput from '@/shared/form/RangeInput.vue'

import { useDiagnosis, useWhatIf } from './api'
import ManyBlocks from './ManyBlocks.vue'

/** A block with errors of one's choice, drawn as it would come out, and many of them by chance. */
const props = defineProps<{
  project: Project
  block: { id: string; view: { name: string } }
  colours: Record<string, string>
}>()
const { data: places, error } = useDiagnosis(
  () => ({ subject: 'blocks' as const, of: props.block.id }),
  () => 1,
  () => '',
)
const marks = useWindowPreference<Record<string, number>>(`what-if.${props.block.id}`, { seam: 2 })
const factor = useWindowPreference<number>('factor', 4)
const scatter = useWindowPreference<number>('scatter', 100)

/** How much a slider's mark is, as the core says for this measure. */
const step = computed(() => places.value?.slider_step ?? 0)
const causes = computed(() =>
  Object.fromEntries(Object.entries(marks.value).flatMap(([k, n]) => (n ? [[k, n * step.value]] : []))),
)
const once = computed(() => ({
  causes: causes.value,
  factor: factor.value,
  scatter: scatter.value / 100,
  blocks: 0,
}))
const crowd = computed(() => ({
  causes: causes.value,
  factor: 1,
  scatter: scatter.value / 100,
  blocks: 10_000,
}))
const { data, isFetching } = useWhatIf(() => props.block.id, once)
// Many are asked for as soon as the one block stands: so they never hold it up, and what is overtaken is not asked.
const { data: many } = useWhatIf(
  () => props.block.id,
  crowd,
  () => !isFetching.value,
)

const refusal = computed(() => (error.value instanceof Refusal ? error.value.message : ''))
const groups = computed(() => {
  const all = (places.value?.places.parameters ?? []).filter((p) => p.cause !== 'cut')
  const seams = all.filter((p) => p.batch < 0)
  const batches = (places.value?.places.batches ?? []).map((b) => ({
    title: b.name,
    list: all.filter((p) => p.batch === b.number),
  }))
  return [{ title: 'All joining seams', list: seams }, ...batches]
})
const causeSaid = (key: string) => data.value?.causes.find((c) => c.key === key)?.said
const label = (p: { key: string; cause: string }) => causeSaid(p.key) ?? 'true'
const seen = computed(() => data.value?.faults.slice(0, 12) ?? [])
</script>

<template>
  <main id="main" class="what">
    <h2 class="visually-hidden">What if: {{ block.view.name }}</h2>
    <section v-if="refusal" class="sheet wide" role="alert">
      <h2>This cannot be sewn yet</h2>
      <p>{{ refusal }}</p>
    </section>
    <template v-else>
      <section class="shown" aria-label="The block as it would come out">
        <CoreDrawing v-if="data" :drawing="data.drawing" :colours="colours" :width="560" />
        <div class="factor">
          <span>Errors drawn {{ factor === 1 ? 'as they are' : `${factor} times as large` }}</span>
          <RangeInput v-model="factor" label="How much larger errors are drawn" :min="1" :max="12" />
        </div>
      </section>
      <section class="sheet knobs" aria-label="What is off">
        <div class="head">
          <h2>What if</h2>
          <NButton text class="quiet" @click="marks = {}">All true</NButton>
        </div>
        <fieldset v-for="g in groups" :key="g.title">
          <legend>{{ g.title }}</legend>
          <div v-for="p in g.list" :key="p.key" class="knob">
            <span aria-hidden="true">{{ p.name }}</span>
            <RangeInput
              :model-value="marks[p.key] ?? 0"
              :label="p.name"
              :min="p.cause === 'fold' ? 0 : -8"
              :max="8"
              @update:model-value="marks = { ...marks, [p.key]: $event }"
            />
            <span class="soft value" :class="{ on: marks[p.key] }">{{ label(p) }}</span>
          </div>
        </fieldset>
      </section>
      <section v-if="data" class="sheet" aria-label="What it comes to">
        <h3>What it comes to</h3>
        <p class="big">
          {{ data.width }} <span class="soft">across,</span> {{ data.height }} <span class="soft">down</span>
        </p>
        <p>
          What the seam costs: {{ data.seams_across }} seams across and {{ data.seams_down }} down. Each
          {{ data.seen.pretty }} too wide takes {{ data.across.pretty }} off this block across and
          {{ data.down.pretty }} down, and {{ data.quilt_across.pretty }} and {{ data.quilt_down.pretty }} off
          the quilt.
        </p>
        <ol v-if="seen.length" class="faults">
          <li v-for="f in seen" :key="f.key" :value="f.number">
            {{ f.said }}<span v-if="f.eased" class="soft"> (pins ease that in)</span>
          </li>
        </ol>
        <p v-else class="soft">No fault to be seen: every tip touches and every diagonal meets its corner.</p>
        <p v-if="data.faults.length > 12" class="soft">
          and {{ data.faults.length - 12 }} more, numbered on the drawing.
        </p>
        <p class="soft">
          Measured already?
          <RouterLink :to="{ name: 'diagnose-block', params: { project: project.id, block: block.id } }"
            >See it as sewn</RouterLink
          >
        </p>
      </section>
      <ManyBlocks
        v-if="many?.of_many"
        v-model="scatter"
        :many="many.of_many"
        :seen="many.seen.pretty"
        :eased="many.eased.pretty"
        :rooms="many.rooms"
        :batches="places?.places.batches ?? []"
        :schools="schoolWords"
      />
    </template>
  </main>
</template>

<style scoped>
.what {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}

.wide {
  grid-column: 1 / -1;
}

.shown {
  display: grid;
  gap: 10px;
  justify-items: center;
}

@media (width > 760px) {
  .shown {
    position: sticky;
    top: 8px;
  }
}

.factor {
  width: 100%;
  max-width: 520px;
  color: var(--chalk);
}

.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}

fieldset {
  border: 0;
  margin: 6px 0 0;
  padding: 0;
}

legend {
  font-weight: 600;
  padding: 4px 0 0;
}

legend::first-letter {
  text-transform: uppercase;
}

.knob {
  display: grid;
  grid-template-columns: 200px minmax(90px, 1fr) minmax(0, 1.1fr);
  gap: 14px;
  align-items: center;
  min-height: 34px;
}

.value {
  line-height: 1.15;
}

.value.on {
  color: var(--ink);
}

.big {
  font-size: 26px;
  font-weight: 600;
}

.big .soft {
  font-size: 17px;
  font-weight: 400;
}

.faults {
  margin: 8px 0 0;
  padding-left: 30px;
  line-height: 1.3;
}

.faults li::first-letter {
  text-transform: uppercase;
}

@media (width <= 760px) {
  .what {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media (width <= 960px) {
  /* What it is and what it is set to above the slider. */
  .knob {
    grid-template-columns: auto minmax(0, 1fr);
    gap: 2px 14px;
    margin-bottom: 8px;
  }

  .knob > :nth-child(2) {
    grid-area: 2 / 1 / 3 / -1;
  }

  .value {
    text-align: right;
  }
}
</style>
