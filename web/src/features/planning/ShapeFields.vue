<script setup lang="ts">
import { computed } from 'vue'

import { useKinds } from '@/features/projects'
import Choice from '@/shared/form/Choice.vue'
import LengthInput from '@/shared/form/LengthInput.vue'

import type { Draft } from './draft'

/** The sizes this kind of unit has: one, two, corners, a strip. */
const draft = defineModel<Draft>({ required: true })
defineProps<{ problems: Record<string, string> }>()
const { data: kinds } = useKinds()
const kind = computed(() => kinds.value?.find((k) => k.name === draft.value.kind))
const bases = [
  { value: 'unit', label: 'Unit' },
  { value: 'block', label: 'Block' },
]
const goose = computed(() => draft.value.kind === 'flying_goose')
/** Corners as they lie: upper ones above. */
const corners = [
  { field: 'corner_3', label: 'Upper left corner' },
  { field: 'corner_2', label: 'Upper right corner' },
  { field: 'corner_0', label: 'Lower left corner' },
  { field: 'corner_1', label: 'Lower right corner' },
]
</script>

<template>
  <div class="shape">
    <Choice v-if="!kind?.free_height" v-model="draft.size_basis!" label="Size given for" :options="bases" />
    <div v-if="kind?.free_height" class="pair">
      <LengthInput v-model="draft.finished!" label="Finishes wide" :problem="problems.finished" />
      <LengthInput
        v-model="draft.height!"
        label="Finishes high"
        :problem="problems.height"
        :hint="goose ? 'empty: half the width' : undefined"
      />
    </div>
    <LengthInput
      v-else-if="draft.size_basis === 'unit'"
      v-model="draft.finished!"
      label="Unit finishes"
      :problem="problems.finished ?? problems.height"
      hint="as seen in the finished quilt"
    />
    <div v-else class="pair">
      <LengthInput
        v-model="draft.block_finished!"
        label="Block finishes"
        :problem="problems.block_finished ?? problems.finished"
      />
      <LengthInput
        v-model="draft.units_across!"
        label="Units across"
        :problem="problems.units_across"
        numeric
      />
    </div>
    <div v-if="kind?.has_corners" class="pair" role="group" aria-label="Corners, finished">
      <LengthInput v-for="c in corners" :key="c.field" v-model="draft[c.field]!" :label="c.label" />
    </div>
    <p v-if="kind?.has_corners && problems.corners" class="serious" role="alert">{{ problems.corners }}</p>
    <LengthInput
      v-if="kind?.has_strip"
      v-model="draft.strip!"
      :label="draft.kind === 'banded_hourglass' ? 'Band finishes' : 'Strip finishes'"
      :problem="problems.strip"
    />
  </div>
</template>

<style scoped>
.shape {
  display: grid;
  gap: 10px;
}

.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 12px;
}
</style>
