<script setup lang="ts">
import LabelledSelect from '@/shared/form/LabelledSelect.vue'
import { NButton } from 'naive-ui'
import { reactive, watch } from 'vue'

import type { Project, Schemas } from '@/shared/api/client'
import LengthInput from '@/shared/form/LengthInput.vue'
import { useUndo } from '@/shared/notes/useUndo'

import type { SavedBlock } from './api'
import FabricSelect from './FabricSelect.vue'
import PiecedFields from './PiecedFields.vue'

/** Borders from the inside out, each plain or pieced; round a single block they are the rounds of a medallion. */
defineProps<{ project: Project; blocks: SavedBlock[]; problem?: string }>()
const model = defineModel<string>({ required: true })
type Pieced = Schemas['PiecedWire']
type Row = { width: string; fabric: string; corners: string; corner_fabric: string; pieced: Pieced | null }
const read = (text: string) =>
  (JSON.parse(text) as Row[]).map((b) => ({ ...b, pieced: b.pieced ?? null }) as Row)
const rows = reactive<Row[]>(read(model.value))

watch(model, (now) => {
  if (now !== JSON.stringify(rows)) rows.splice(0, rows.length, ...read(now))
})
watch(rows, () => (model.value = JSON.stringify(rows)))

const made = [
  { value: 'plain', label: 'plain' },
  { value: 'pieced', label: 'pieced' },
]
const corners = [
  { value: 'overlapped', label: 'overlapped' },
  { value: 'square', label: 'squares' },
  { value: 'mitred', label: 'mitred' },
]
const firstPieced = (): Pieced => ({
  units: [{ kind: 'half_square_triangle', fabrics: 'ab' }],
  corner: null,
  turn: 0,
  corner_turn: 0,
  fit: 'spacer',
  runs: 'round',
})
const undo = useUndo()
function takeAway(n: number) {
  const [gone] = rows.splice(n, 1)
  undo(`Border ${n + 1} was taken away.`, () => rows.splice(n, 0, gone!))
}
const more = () =>
  rows.push({ width: '2', fabric: 'a', corners: 'overlapped', corner_fabric: 'b', pieced: null })
</script>

<template>
  <div class="borders" role="group" aria-label="Borders">
    <div v-for="(b, n) in rows" :key="n" class="border">
      <LengthInput v-model="b.width" :label="`Border ${n + 1} finishes`" />
      <LabelledSelect
        label="It is"
        :model-value="b.pieced ? 'pieced' : 'plain'"
        :named="`Border ${n + 1} is`"
        :options="made"
        @update:model-value="b.pieced = $event === 'pieced' ? firstPieced() : null"
      />
      <FabricSelect v-model="b.fabric" :label="b.pieced ? 'Plain strip from' : 'From'" :project="project" />
      <LabelledSelect
        v-if="!b.pieced"
        v-model="b.corners"
        label="Corners"
        :named="`Corners of border ${n + 1}`"
        :options="corners"
      />
      <FabricSelect
        v-if="b.pieced ? !b.pieced.corner : b.corners === 'square'"
        v-model="b.corner_fabric"
        label="Corner squares from"
        :project="project"
      />
      <PiecedFields v-if="b.pieced" v-model="b.pieced" :project="project" :blocks="blocks" :border="n + 1" />
      <NButton text class="quiet" @click="takeAway(n)">Take border {{ n + 1 }} away</NButton>
    </div>
    <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
    <NButton text class="quiet" @click="more">
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

.border .quiet {
  grid-column: 1 / -1;
}
</style>
