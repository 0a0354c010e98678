<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed, ref, watchEffect } from 'vue'

import { KindDialog } from '@/features/projects'
import type { Project, Schemas } from '@/shared/api/client'
import { cutWords, kindWords } from '@/shared/words/words'
import Choice from '@/shared/form/Choice.vue'
import LengthInput from '@/shared/form/LengthInput.vue'

import { cutsOf, type Draft } from './draft'
import FabricRows from './FabricRows.vue'
import FromBlocks from './FromBlocks.vue'
import MethodChoice from './MethodChoice.vue'
import SpareUnits from './SpareUnits.vue'
import PartsRows from './PartsRows.vue'
import ShapeFields from './ShapeFields.vue'

const draft = defineModel<Draft>({ required: true })
const props = defineProps<{
  problems: Record<string, string>
  project: Project
  unit: string
  plan: Schemas['UnitPlan'] | null
}>()
const emit = defineEmits<{ measure: [string]; kind: [string]; method: [string] }>()
const choosing = ref(false)

const measures = [
  { value: 'in', label: 'Inches' },
  { value: 'mm', label: 'Millimetres' },
]
const plainSteps = computed(() =>
  draft.value.measure === 'mm' ? ['1 mm', '2 mm', '5 mm'] : ['1/16', '1/8', '1/4'],
)
const steps = computed(() => {
  const now = draft.value.ruler_step ?? ''
  const all = plainSteps.value.includes(now) ? plainSteps.value : [...plainSteps.value, now]
  return all.map((s) => ({ value: s, label: s }))
})
const cutNames = computed(() => Object.keys(props.plan?.cuts ?? cutsOf(draft.value)))
/** Opened by what stands in it; it does not close under the hands of who empties the last field. */
const more = ref(false)
watchEffect(() => {
  if (draft.value.stitch || Object.keys(cutsOf(draft.value)).length) more.value = true
})
const planned = computed(() => props.project.units.find((u) => u.id === props.unit))
/** The blocks that it is wanted for: they say its size, its number and its fabrics. */
const blocks = computed(() => planned.value?.blocks ?? [])
const handed = computed(() => props.plan?.handed || (draft.value.mirrored ?? '0') !== '0')
</script>

<template>
  <section class="sheet panel" aria-label="Choices">
    <div class="kind">
      <h2>{{ kindWords[draft.kind ?? '']?.name }}</h2>
      <NButton v-if="!blocks.length" size="small" @click="choosing = true">Another kind</NButton>
      <KindDialog
        v-model:show="choosing"
        title="Make it another kind"
        :current="draft.kind"
        @choose="emit('kind', $event)"
      />
    </div>
    <FromBlocks v-if="planned && blocks.length" :project="project" :unit="planned" />
    <ShapeFields v-if="!blocks.length" v-model="draft" :problems="problems" />
    <div v-if="!blocks.length" class="pair">
      <LengthInput
        v-model="draft.count!"
        :label="handed ? 'Wanted as drawn' : 'Units wanted'"
        :problem="problems.count"
        numeric
      />
      <LengthInput
        v-if="handed"
        v-model="draft.mirrored!"
        label="Wanted mirrored"
        :problem="problems.mirrored"
        numeric
      />
    </div>
    <LengthInput
      v-model="draft.ready!"
      label="Of these, made already"
      :problem="problems.ready"
      numeric
      hint="such as spares of other units; they are not cut again"
    />
    <SpareUnits :project="project" :unit="unit" />
    <hr class="basted" />
    <PartsRows
      v-if="!blocks.length"
      v-model="draft.part_fabrics!"
      :kind="draft.kind!"
      :project="project"
      :problem="problems.part_fabrics"
    />
    <details open>
      <summary>Fabrics</summary>
      <FabricRows :project="project" />
    </details>
    <hr class="basted" />
    <MethodChoice
      :kind="draft.kind!"
      :method="draft.method!"
      :project="project.id"
      :unit="unit"
      :problem="problems.method"
      @choose="emit('method', $event)"
    />
    <div class="pair">
      <LengthInput
        v-model="draft.seam_allowance!"
        label="Seam allowance"
        :problem="problems.seam_allowance"
      />
      <LengthInput
        v-model="draft.fold!"
        label="Fold not paid for"
        :problem="problems.fold"
        hint="0 when sewn scant"
      />
    </div>
    <details :open="more || undefined">
      <summary>More about seam, cut and ruler</summary>
      <div class="more">
        <LengthInput
          v-model="draft.stitch!"
          label="Stitches lie from the edge"
          :problem="problems.stitch"
          :placeholder="draft.seam_allowance"
          hint="empty: at the seam allowance"
        />
        <fieldset>
          <legend>Already cut, or bought, at</legend>
          <div class="pair">
            <LengthInput
              v-for="name in cutNames"
              :key="name"
              :model-value="draft[`cuts.${name}`] ?? ''"
              :label="cutWords[name] ?? name"
              :placeholder="plan?.cuts[name]?.text"
              :problem="problems[`cuts.${name}`]"
              @update:model-value="draft[`cuts.${name}`] = $event"
            />
          </div>
          <p class="soft">Empty: the school says how large.</p>
        </fieldset>
        <Choice
          :model-value="draft.measure!"
          label="Measure in"
          :options="measures"
          @update:model-value="emit('measure', $event)"
        />
        <Choice v-model="draft.ruler_step!" label="Ruler steps" :options="steps" />
      </div>
    </details>
  </section>
</template>

<style scoped>
.panel {
  display: grid;
  gap: 10px;
}

.panel .basted {
  margin: 2px 0;
}

.kind {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
}

.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 12px;
}

summary {
  cursor: pointer;
  font-weight: 550;
  margin-bottom: 6px;
}

.more {
  display: grid;
  gap: 10px;
  padding-top: 4px;
}

fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
}

legend {
  padding: 0;
  font-weight: 600;
}
</style>
