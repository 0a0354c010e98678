<script setup lang="ts">
import { NButton, NModal } from 'naive-ui'
import { ref, watch } from 'vue'

import { plural } from '@/shared/lib/words'

import { useImport } from './api'

const LARGEST = 900_000
const props = defineProps<{ unit: string }>()
const show = defineModel<boolean>('show', { required: true })
const text = ref('')
const problem = ref('')
const { mutate, data, reset, error, isPending } = useImport(() => props.unit)

watch(show, (open) => {
  if (open) reset()
})

async function open(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  problem.value = ''
  if (!file) return
  if (file.size > LARGEST) {
    problem.value = 'This file is larger than a sheet of readings can be. Save only the lines with readings.'
    return
  }
  text.value = await file.text()
}

/** What was refused stays in the box to be put right; what went in leaves it. */
function take() {
  problem.value = ''
  mutate(text.value, {
    onSuccess: (done) => {
      const lines = text.value.split(/\r\n|\r|\n/)
      text.value = done.refused.map((r) => lines[r.line - 1] ?? r.text).join('\n')
    },
  })
}
</script>

<template>
  <NModal
    v-model:show="show"
    preset="card"
    title="Readings from a sheet"
    class="sheet-dialog"
    aria-label="Readings from a sheet"
  >
    <p>
      One reading a line: kind, value, units in the row, whole of a strip test, note. Kinds are
      <em>unit_width, unit_height, raw_size, row_length, stitch_distance, strip_test</em>. Commas, semicolons
      or tabs.
    </p>
    <label class="visually-hidden" for="sheet-text">Lines</label>
    <textarea
      id="sheet-text"
      v-model="text"
      rows="9"
      spellcheck="false"
      placeholder="unit_width,3 15/16&#10;row_length,14 3/8,4&#10;strip_test,1,,3 1/2,before the first seam"
    />
    <div class="acts">
      <label class="file"
        >Open a file <input type="file" accept=".csv,text/csv,text/plain" @change="open"
      /></label>
      <NButton type="primary" :disabled="!text.trim()" :loading="isPending" @click="take"
        >Take these lines</NButton
      >
    </div>
    <p v-if="problem || error" class="problem" role="alert">{{ problem || error?.message }}</p>
    <div v-if="data" role="status">
      <p>
        <strong>{{ plural(data.added, 'reading') }} taken.</strong>
        <template v-if="data.refused.length">
          {{ plural(data.refused.length, 'line') }} could not be read and
          {{ data.refused.length === 1 ? 'stays' : 'stay' }} above to be put right:</template
        >
      </p>
      <ul>
        <li v-for="r in data.refused" :key="r.line">Line {{ r.line }}, “{{ r.text }}”: {{ r.reason }}</li>
      </ul>
    </div>
  </NModal>
</template>

<style>
.sheet-dialog {
  max-width: 760px;
}
</style>

<style scoped>
textarea {
  width: 100%;
  font: inherit;
  margin: 10px 0;
  padding: 8px 10px;
  border: 1px solid var(--steel-line);
}

.acts {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  margin-bottom: 10px;
}

.file input {
  font: inherit;
}

.problem {
  color: var(--buoy);
}
</style>
