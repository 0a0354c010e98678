<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { computed } from 'vue'

import { useWorkroom } from '@/shared/offline/useWorkroom'
import Choice from '@/shared/form/Choice.vue'
import LengthInput from '@/shared/form/LengthInput.vue'

import CopiesSheet from './CopiesSheet.vue'
import RulersSheet from './RulersSheet.vue'

const { data, typed, problems, keep } = useWorkroom(
  'name',
  'measure',
  'seam_allowance',
  'ruler_step',
  'reading_step',
  'cutter',
)
watchDebounced(typed, keep, { debounce: 500 })

/** Refusals of what is chosen have no field to stand under. */
const others = computed(() =>
  Object.entries(problems).flatMap(([f, why]) => (f === 'name' || f === 'seam_allowance' ? [] : [why])),
)

const measures = [
  { value: 'in', label: 'Inches' },
  { value: 'mm', label: 'Millimetres' },
]
const hands = [
  { value: 'right', label: 'Right' },
  { value: 'left', label: 'Left' },
]
const around = (list: string[], now: string) =>
  (list.includes(now) || !now ? list : [...list, now]).map((s) => ({ value: s, label: s }))
const steps = computed(() =>
  around(typed.measure === 'mm' ? ['1 mm', '2 mm', '5 mm'] : ['1/16', '1/8', '1/4'], typed.ruler_step),
)
const marks = computed(() =>
  around(typed.measure === 'mm' ? ['0.5 mm', '1 mm'] : ['1/16', '1/32', '1/64'], typed.reading_step),
)
</script>

<template>
  <main id="main" class="page">
    <h1>Settings</h1>
    <section v-if="data" class="sheet form">
      <p class="soft">New projects start from these. Projects that exist keep their own.</p>
      <LengthInput v-model="typed.name" label="Name of the workroom" words :problem="problems.name" />
      <Choice v-model="typed.measure" label="Measure in" :options="measures" />
      <LengthInput v-model="typed.seam_allowance" label="Seam allowance" :problem="problems.seam_allowance" />
      <Choice v-model="typed.ruler_step" label="Cut sizes are rounded up to" :options="steps" />
      <Choice v-model="typed.reading_step" label="Readings are taken to the nearest" :options="marks" />
      <Choice v-model="typed.cutter" label="The hand that holds the blade" :options="hands" />
      <p v-for="p in others" :key="p" class="serious" role="alert">{{ p }}</p>
    </section>
    <RulersSheet v-if="data" :rulers="data.rulers" />
    <CopiesSheet />
  </main>
</template>

<style scoped>
.page {
  max-width: 860px;
  margin: 0 auto;
  padding: 28px 24px;
  display: grid;
  gap: 14px;
}

h1 {
  color: var(--chalk);
}

.form {
  display: grid;
  gap: 16px;
}
</style>
