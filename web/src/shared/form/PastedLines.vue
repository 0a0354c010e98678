<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { NButton, NInput } from 'naive-ui'
import { ref, watch } from 'vue'

import { Refusal, type Schemas, ServerAway } from '@/shared/api/client'
import { useDraft } from '@/shared/offline/typed'

import FileButton from './FileButton.vue'

/**
 * Lines of a sheet, pasted or opened from a file. What is good goes in and leaves the box; what was refused stays in it to be put
 * right, with its reason. Lines that were not taken in yet stay in this browser under ``kept``.
 */
const props = defineProps<{
  columns: string
  kept: string
  take: (text: string) => Promise<Schemas['Imported']>
  /** What is asked anew once lines are in. */
  behind: string[]
}>()
const client = useQueryClient()
const { draft, keepDraft } = useDraft(props.kept)
const lines = ref(typeof draft.text === 'string' ? draft.text : '')
watch(lines, (text) => keepDraft(text ? { text } : {}))
const told = ref<Schemas['Imported'] | null>(null)
const problem = ref('')

async function takeIn() {
  told.value = null
  problem.value = ''
  try {
    told.value = await props.take(lines.value)
    const all = lines.value.split(/\r\n|\r|\n/)
    lines.value = told.value.refused.map((r) => all[r.line - 1] ?? r.text).join('\n')
    for (const key of props.behind) void client.invalidateQueries({ queryKey: [key] })
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
  else lines.value = await file.text()
}
</script>

<template>
  <form class="pasted" @submit.prevent="takeIn">
    <p class="soft">{{ columns }}</p>
    <NInput v-model:value="lines" type="textarea" :rows="5" :input-props="{ 'aria-label': 'Lines' }" />
    <div class="acts">
      <NButton size="small" type="primary" attr-type="submit" :disabled="!lines.trim()">Take them in</NButton>
      <FileButton accept=".csv,.txt,text/csv" @file="open">Open a file</FileButton>
    </div>
    <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
    <div v-if="told" role="status">
      <p>
        {{ told.added }} taken in<template v-if="told.refused.length"
          >; {{ told.refused.length }} not</template
        >.
      </p>
      <p v-for="r in told.refused.slice(0, 20)" :key="r.line" class="refused">
        Line {{ r.line }}: {{ r.reason }}
      </p>
    </div>
  </form>
</template>

<style scoped>
.pasted {
  display: grid;
  gap: 8px;
  margin: 8px 0;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
}

.refused {
  padding-left: 14px;
}
</style>
