<script setup lang="ts">
import FileButton from '@/shared/form/FileButton.vue'
import { useQueryClient } from '@tanstack/vue-query'
import { NButton, NInput } from 'naive-ui'
import { ref, watch } from 'vue'

import { type Project, Refusal, type Schemas, ServerAway } from '@/shared/api/client'
import Choice from '@/shared/form/Choice.vue'

import { useDraft } from '@/shared/offline/typed'

import { importList } from './api'

/** Stock and cut list as CSV: out as files, in by pasting or opening one. */
const props = defineProps<{ project: Project }>()
const client = useQueryClient()
const { draft, keepDraft } = useDraft(`list ${props.project.id}`)
const which = ref<'stock' | 'cut-list'>(draft.which === 'cut-list' ? 'cut-list' : 'stock')
const text = ref(typeof draft.text === 'string' ? draft.text : '')
// Lines pasted and not taken in yet stay in this browser.
watch([which, text], () => keepDraft(text.value ? { which: which.value, text: text.value } : {}))
const told = ref<Schemas['Imported'] | null>(null)
const problem = ref('')
const address = (name: string) => `/api/projects/${props.project.id}/${name}.csv`
const columns = {
  stock: 'fabric, kind, across, along, count, name, across_most',
  'cut-list': 'fabric, width, height, count, name',
}

async function take() {
  try {
    told.value = await importList(props.project.id, which.value, text.value)
    problem.value = ''
    if (!told.value.refused.length) text.value = ''
    void client.invalidateQueries({ queryKey: ['cutting', props.project.id] })
    void client.invalidateQueries({ queryKey: ['buying'] })
  } catch (error) {
    if (!(error instanceof Refusal || error instanceof ServerAway)) throw error
    problem.value =
      error instanceof Refusal
        ? error.message
        : `${error.message} The lines stay here: take them in when it is back.`
  }
}

async function open(file: File) {
  if (file.size > 1_900_000) problem.value = 'This file is larger than 1.9 MB. Send it in smaller parts.'
  else text.value = await file.text()
}
</script>

<template>
  <section class="sheet" aria-label="Lists">
    <h2>Lists</h2>
    <p><a :href="address('stock')">Stock as CSV</a>, <a :href="address('cut-list')">cut list as CSV</a></p>
    <details :open="!!text || undefined">
      <summary>Take in a list</summary>
      <Choice
        v-model="which"
        label="What it holds"
        :options="[
          { value: 'stock', label: 'stock' },
          { value: 'cut-list', label: 'pieces to cut' },
        ]"
      />
      <div class="lines">
        Lines: {{ columns[which] }}
        <NInput v-model:value="text" type="textarea" :rows="5" :input-props="{ 'aria-label': 'Lines' }" />
      </div>
      <div class="acts">
        <NButton size="small" :disabled="!text.trim()" @click="take">Take it in</NButton>
        <FileButton accept=".csv,.txt,text/csv" @file="open">Open a file</FileButton>
      </div>
      <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
      <div v-if="told" role="status">
        <p>{{ told.added }} taken in.</p>
        <ul v-if="told.refused.length">
          <li v-for="r in told.refused" :key="r.line">Line {{ r.line }}: {{ r.reason }}</li>
        </ul>
      </div>
    </details>
  </section>
</template>

<style scoped>
summary {
  cursor: pointer;
  color: var(--petrol);
  margin: 6px 0;
}

.lines {
  display: grid;
  gap: 3px;
  margin: 8px 0;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
}
</style>
