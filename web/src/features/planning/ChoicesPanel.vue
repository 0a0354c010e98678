<script setup lang="ts">
import { computed } from 'vue'

import type { Project } from '@/shared/api/client'
import Choice from '@/shared/ui/Choice.vue'
import LengthInput from '@/shared/ui/LengthInput.vue'

import FabricRows from './FabricRows.vue'
import type { Draft } from './usePlanDraft'

const draft = defineModel<Draft>({ required: true })
const props = defineProps<{ problems: Record<string, string>; project: Project }>()

const emit = defineEmits<{ measure: [string] }>()

const bases = [
  { value: 'unit', label: 'Unit' },
  { value: 'block', label: 'Block' },
]
const measures = [
  { value: 'in', label: 'Inches' },
  { value: 'mm', label: 'Millimetres' },
]
const plainSteps = computed(() =>
  draft.value.measure === 'mm' ? ['1 mm', '2 mm', '5 mm'] : ['1/16', '1/8', '1/4'],
)
const steps = computed(() => {
  const now = draft.value.ruler_step
  const all = plainSteps.value.includes(now) ? plainSteps.value : [...plainSteps.value, now]
  return all.map((s) => ({ value: s, label: s }))
})
const across = computed(() => props.problems.units_across)
</script>

<template>
  <section class="sheet panel" aria-label="Choices">
    <div class="pair">
      <Choice v-model="draft.size_basis" label="Size given for" :options="bases" />
      <LengthInput v-model="draft.count" label="Units wanted" :problem="problems.count" numeric />
    </div>
    <LengthInput
      v-if="draft.size_basis === 'unit'"
      v-model="draft.finished"
      label="Unit finishes"
      :problem="problems.finished"
      hint="as seen in the finished quilt"
    />
    <div v-else class="pair">
      <LengthInput
        v-model="draft.block_finished"
        label="Block finishes"
        :problem="problems.block_finished ?? problems.finished"
      />
      <LengthInput v-model="draft.units_across" label="Units across" :problem="across" numeric />
    </div>
    <hr class="basted" />
    <FabricRows :project="project" />
    <hr class="basted" />
    <div class="pair">
      <LengthInput v-model="draft.seam_allowance" label="Seam allowance" :problem="problems.seam_allowance" />
      <LengthInput
        v-model="draft.fold"
        label="Fold not paid for"
        :problem="problems.fold"
        hint="0 when sewn scant"
      />
    </div>
    <details :open="!!(draft.stitch || draft.cut) || undefined">
      <summary>More about seam, cut and ruler</summary>
      <div class="more">
        <LengthInput
          v-model="draft.stitch"
          label="Stitches lie from the edge"
          :problem="problems.stitch"
          :placeholder="draft.seam_allowance"
          hint="empty: at the seam allowance"
        />
        <LengthInput
          v-model="draft.cut"
          label="Squares already cut at"
          :problem="problems.cut"
          hint="empty: the school says how large"
        />
        <Choice
          :model-value="draft.measure"
          label="Measure in"
          :options="measures"
          @update:model-value="emit('measure', $event)"
        />
        <Choice v-model="draft.ruler_step" label="Ruler steps" :options="steps" />
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
  margin: 4px 0;
}

.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}

summary {
  cursor: pointer;
  font-weight: 550;
}

.more {
  display: grid;
  gap: 10px;
  padding-top: 10px;
}
</style>
