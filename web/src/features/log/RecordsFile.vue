<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'

import { api, Refusal, ServerAway, taken } from '@/shared/api/client'
import FileButton from '@/shared/form/FileButton.vue'

/** The records as a file, to keep or to take to another computer; taken in, they are added to those that are here. */
const client = useQueryClient()
const said = ref('')
const refused = ref<string[]>([])
const problem = ref('')

async function open(file: File) {
  said.value = problem.value = ''
  refused.value = []
  if (file.size > 1_900_000) {
    problem.value = 'This file is larger than 1.9 MB. Restore a whole copy under Settings instead.'
    return
  }
  try {
    const done = await taken(api.POST('/api/exchange/records', { body: JSON.parse(await file.text()) }))
    const added = Object.values(done.added).reduce((n, m) => n + m, 0)
    said.value = `${added} added${done.known ? `, ${done.known} were here already` : ''}.`
    refused.value = done.refused
    void client.invalidateQueries()
  } catch (error) {
    if (error instanceof SyntaxError) problem.value = 'This file is no JSON. Choose one that was saved here.'
    else if (error instanceof Refusal || error instanceof ServerAway) problem.value = error.message
    else throw error
  }
}
</script>

<template>
  <section class="sheet" aria-label="Records as a file">
    <h2>As a file</h2>
    <p class="acts">
      <a href="/api/exchange/records" download="records.json">All records as JSON</a>
      <FileButton accept=".json,application/json" @file="open">Take in records</FileButton>
    </p>
    <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
    <div v-if="said" role="status">
      <p>{{ said }}</p>
      <ul v-if="refused.length">
        <li v-for="r in refused.slice(0, 20)" :key="r">{{ r }}</li>
      </ul>
    </div>
    <p class="soft">
      Machines, seam tests, days left out, minutes, free times and the log. What is here already stays as it
      is. Photos are in the copy of the whole workroom, under Settings.
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 20px;
  align-items: center;
}

ul {
  margin: 4px 0 0;
  padding-left: 20px;
}
</style>
