<script setup lang="ts">
import SelectInput from '@/shared/form/SelectInput.vue'
import { NButton } from 'naive-ui'
import { reactive, watch } from 'vue'

import type { Project } from '@/shared/api/client'
import LengthInput from '@/shared/form/LengthInput.vue'

import FabricSelect from './FabricSelect.vue'

/** Borders from the inside out, each with its width, fabric and corners. */
defineProps<{ project: Project; problem?: string }>()
const model = defineModel<string>({ required: true })
type Row = { width: string; fabric: string; corners: string; corner_fabric: string }
const rows = reactive<Row[]>(JSON.parse(model.value))

watch(model, (now) => {
  if (now !== JSON.stringify(rows)) rows.splice(0, rows.length, ...(JSON.parse(now) as Row[]))
})
watch(rows, () => (model.value = JSON.stringify(rows)))

const corners = [
  { value: 'overlapped', label: 'overlapped' },
  { value: 'square', label: 'squares' },
]
const more = () => rows.push({ width: '2', fabric: 'a', corners: 'overlapped', corner_fabric: 'b' })
</script>

<template>
  <div class="borders" role="group" aria-label="Borders">
    <div v-for="(b, n) in rows" :key="n" class="border">
      <LengthInput v-model="b.width" :label="`Border ${n + 1} finishes`" />
      <FabricSelect v-model="b.fabric" label="From" :project="project" />
      <div class="field">
        Corners
        <SelectInput v-model="b.corners" :labelled="`Corners of border ${n + 1}`" :options="corners" />
      </div>
      <FabricSelect
        v-if="b.corners === 'square'"
        v-model="b.corner_fabric"
        label="Squares from"
        :project="project"
      />
      <NButton text class="quiet" @click="rows.splice(n, 1)">Take border {{ n + 1 }} away</NButton>
    </div>
    <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
    <NButton v-if="rows.length < 6" text class="quiet" @click="more">
      {{ rows.length ? 'Another border' : 'Add a border' }}
    </NButton>
  </div>
</template>

<style scoped>
.borders {
  display: grid;
  gap: 12px;
}

.border {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 12px;
  align-items: start;
}

.field {
  display: grid;
  gap: 3px;
  font-stretch: 88%;
  font-weight: 550;
}

.border .quiet {
  grid-column: 1 / -1;
}
</style>
