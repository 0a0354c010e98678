<script setup lang="ts">
import FileButton from '@/shared/form/FileButton.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { NButton, NSpin, useDialog } from 'naive-ui'
import { ref } from 'vue'

import { api, Refusal, taken } from '@/shared/api/client'
import { changes } from '@/shared/offline/queue'
import { momentWords } from '@/shared/words/days'

/** Everything in one file, out and in, and the copies that were made by themselves. */
const { data } = useQuery({ queryKey: ['copies'], queryFn: () => taken(api.GET('/api/copies')) })
const dialog = useDialog()
const problem = ref('')
const working = ref(false)

const occasions: Record<string, string> = {
  daily: 'Daily copy',
  'before-migration': 'Before a new version',
  'before-restore': 'Before going back',
  'before-reset': 'Before starting over',
  'before-purge': 'Before letting go of what was deleted',
}
const occasion = (name: string) => Object.entries(occasions).find(([k]) => name.startsWith(k))?.[1] ?? name
const size = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`

function goBack(to: string, act: () => Promise<unknown>) {
  if (changes.value.length) {
    problem.value =
      'Some of what was typed is not with the server yet. Wait until all is saved, then go back.'
    return
  }
  dialog.warning({
    title: 'Put everything back?',
    content: `Every project, reading and setting becomes as it was in ${to}. What there is now is put aside as a copy first, so that you can come back to it.`,
    positiveText: 'Put it back',
    negativeText: 'Leave it',
    onPositiveClick: () => void restore(act),
  })
}

async function restore(act: () => Promise<unknown>) {
  working.value = true
  problem.value = ''
  try {
    await act()
    // Nothing on screen is true any more.
    window.location.reload()
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    problem.value = error.message
  } finally {
    working.value = false
  }
}

const client = useQueryClient()
const { data: deleted } = useQuery({ queryKey: ['deleted'], queryFn: () => taken(api.GET('/api/deleted')) })

function letGo() {
  dialog.warning({
    title: 'Let go of it for good?',
    content:
      'What was deleted can no longer be taken back. A copy of everything is made before; copies keep it until they are replaced, one by one.',
    positiveText: 'Let go of it',
    negativeText: 'Keep it',
    onPositiveClick: () => void purge(),
  })
}

async function purge() {
  working.value = true
  problem.value = ''
  try {
    client.setQueryData(['deleted'], await taken(api.DELETE('/api/deleted')))
    await client.invalidateQueries({ queryKey: ['copies'] })
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    problem.value = error.message
  } finally {
    working.value = false
  }
}

const fromFile = (file: File) =>
  goBack(file.name, () => {
    const body = new FormData()
    body.append('file', file)
    return taken(
      api.POST('/api/backup', { body: body as unknown as { file: string }, bodySerializer: (b) => b }),
    )
  })
const fromCopy = (name: string) =>
  goBack('this copy', () => taken(api.POST('/api/copies/{name}/restore', { params: { path: { name } } })))
</script>

<template>
  <section class="sheet" aria-label="Copies">
    <h2>Copies</h2>
    <p class="soft">
      One file holds everything: projects, stock, plans and what is ticked, readings, diagnoses, your library,
      rulers and settings. Keep one on another disk.
    </p>
    <div class="acts">
      <a class="quiet" href="/api/backup" download>Save everything to a file</a>
      <FileButton accept=".sqlite3" @file="fromFile">Go back to a file</FileButton>
      <NSpin v-if="working" size="small" />
    </div>
    <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
    <ul v-if="data?.length">
      <li v-for="c in data" :key="c.name">
        <span>{{ occasion(c.name) }}, {{ momentWords(c.made) }}</span>
        <span class="soft">{{ size(c.size) }}</span>
        <NButton text :aria-label="`Go back to the copy of ${momentWords(c.made)}`" @click="fromCopy(c.name)"
          >Go back to it</NButton
        >
      </li>
    </ul>
    <p v-else class="soft">A copy is made every day that the program runs; the last seven are kept.</p>
    <p v-if="deleted?.count" class="deleted">
      {{
        deleted.count === 1
          ? 'One deleted thing is kept, so that it can be taken back.'
          : `${deleted.count} deleted things are kept, so that they can be taken back.`
      }}
      <NButton size="small" @click="letGo">Let go of what was deleted</NButton>
    </p>
  </section>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 22px;
  align-items: center;
  margin: 10px 0;
}

.deleted {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 22px;
  align-items: center;
  justify-content: space-between;
  margin-top: 14px;
  padding-top: 10px;
  border-top: 2px dashed var(--steel-mid);
}

ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 90px 120px;
  gap: 12px;
  padding: 6px 0;
  border-top: 2px dashed var(--steel-mid);
}
</style>
