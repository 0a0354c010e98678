<script setup lang="ts">
import { ref } from 'vue'

import type { Project } from '@/shared/api/client'
import Choice from '@/shared/form/Choice.vue'
import PastedLines from '@/shared/form/PastedLines.vue'
import { useDraft } from '@/shared/offline/typed'

import { importList } from './api'

/** Stock and cut list as CSV: out as files, in by pasting or opening one. */
const props = defineProps<{ project: Project }>()
const which = ref<'stock' | 'cut-list'>('stock')
const draftKey = (list: string) => `${list} ${props.project.id}`
const waiting = (['stock', 'cut-list'] as const).find((l) => useDraft(draftKey(l)).draft.text)
if (waiting) which.value = waiting
const address = (name: string) => `/api/projects/${props.project.id}/${name}.csv`
const columns = {
  stock: 'One cloth a line: fabric, kind, across, along, count, name, across_most',
  'cut-list': 'One kind of piece a line: fabric, width, height, count, name',
}
const take = (text: string) => importList(props.project.id, which.value, text)
</script>

<template>
  <section class="sheet" aria-label="Lists">
    <h2>Lists</h2>
    <p><a :href="address('stock')">Stock as CSV</a>, <a :href="address('cut-list')">cut list as CSV</a></p>
    <details :open="!!waiting || undefined">
      <summary>Take in a list</summary>
      <Choice
        v-model="which"
        label="What it holds"
        :options="[
          { value: 'stock', label: 'stock' },
          { value: 'cut-list', label: 'pieces to cut' },
        ]"
      />
      <PastedLines
        :key="which"
        :columns="columns[which]"
        :kept="draftKey(which)"
        :take="take"
        :behind="['cutting', 'buying']"
      />
    </details>
  </section>
</template>

<style scoped>
summary {
  cursor: pointer;
  color: var(--petrol);
  margin: 6px 0;
}
</style>
