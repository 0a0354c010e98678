<script setup lang="ts">
import FileButton from '@/shared/form/FileButton.vue'
import { useQueryClient } from '@tanstack/vue-query'
import { NButton, NPagination } from 'naive-ui'
import { ref } from 'vue'
import { useRouter } from 'vue-router'

import { Refusal, type Schemas } from '@/shared/api/client'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'

import WaitingFor from '@/shared/ui/WaitingFor.vue'

import { importProject, useProjects } from './api'
import ProjectRow from './ProjectRow.vue'

const { send } = useOutbox()
const router = useRouter()
const client = useQueryClient()
const undo = useUndo()
const showArchive = ref(false)

const page = ref(1)
const archivePage = ref(1)
const { data: live, isPending, error } = useProjects(() => page.value, false)
const { data: archived } = useProjects(
  () => archivePage.value,
  true,
  () => showArchive.value,
)

const begin = () => router.push({ name: 'begin' })

const problem = ref('')

/** A project from a file: a new one, whatever is here already. */
async function takeIn(file: File) {
  try {
    if (file.size > 1_900_000) throw new SyntaxError('too large')
    const project = await importProject(JSON.parse(await file.text()))
    problem.value = ''
    await client.invalidateQueries({ queryKey: ['projects'] })
    await router.push({ name: 'standing', params: { project: project.id } })
  } catch (error) {
    if (error instanceof Refusal) problem.value = error.message
    else if (error instanceof SyntaxError)
      problem.value = 'This file is no project: a project is written as JSON, and is smaller than 1.9 MB.'
    else throw error
  }
}

function remove(p: Schemas['ProjectLine']) {
  send({ kind: 'delete_project', project: p.id })
  undo(`“${p.name}” was deleted.`, () => {
    send({ kind: 'restore_project', project: p.id })
  })
}
</script>

<template>
  <main id="main" class="page">
    <div class="head">
      <h1>On the table</h1>
      <NButton v-if="live?.count" color="#f0b429" text-color="#10242b" @click="begin">
        Begin a project</NButton
      >
    </div>
    <WaitingFor v-if="isPending && !error" what="your projects" />
    <section v-else-if="!live?.count" class="sheet empty">
      <h2>Nothing is cut yet</h2>
      <p>
        Begin with one unit, a block or a quilt. You are shown how large to cut and how much of it, what to
        trim to, what the ruler should read on the way, and, from what it does read, what went wrong and what
        to do about it.
      </p>
      <NButton type="primary" size="large" @click="begin">Begin a first project</NButton>
    </section>
    <ul v-else class="rows">
      <ProjectRow
        v-for="p in live.lines"
        :key="p.id"
        :project="p"
        :pictures="live.pictures"
        @duplicate="send({ kind: 'duplicate_project', source: p.id, project: $event })"
        @archive="send({ kind: 'archive_project', project: p.id })"
        @remove="remove(p)"
      />
    </ul>
    <NPagination
      v-if="live && live.pages > 1"
      v-model:page="page"
      class="pages"
      :page-count="live.pages"
      aria-label="Pages of projects"
    />
    <div class="take-in">
      <FileButton accept=".json,application/json" @file="takeIn">Take in a project from a file</FileButton>
    </div>
    <p v-if="problem" class="sheet" role="alert">{{ problem }}</p>
    <template v-if="live?.others">
      <NButton text class="archive-door" :aria-expanded="showArchive" @click="showArchive = !showArchive">
        {{ showArchive ? 'Hide' : 'Show' }} the archive ({{ live.others }})
      </NButton>
      <ul v-if="showArchive && archived" class="rows">
        <ProjectRow
          v-for="p in archived.lines"
          :key="p.id"
          :project="p"
          :pictures="archived.pictures"
          archived
          @duplicate="send({ kind: 'duplicate_project', source: p.id, project: $event })"
          @archive="send({ kind: 'unarchive_project', project: p.id })"
          @remove="remove(p)"
        />
      </ul>
      <NPagination
        v-if="showArchive && archived && archived.pages > 1"
        v-model:page="archivePage"
        class="pages"
        :page-count="archived.pages"
        aria-label="Pages of the archive"
      />
    </template>
  </main>
</template>

<style scoped>
.page {
  max-width: 1040px;
  margin: 0 auto;
  padding: 28px 24px 48px;
}

.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 18px;
}

h1,
.on-mat,
.archive-door {
  color: var(--chalk);
}

.archive-door {
  margin: 22px 0 12px;
}

.pages {
  margin-top: 18px;
  padding: 8px 12px;
  background: var(--chalk);
  border-radius: 4px;
  width: max-content;
}

.take-in {
  margin: 18px 0 10px;
}

/* On the mat, where the words of a button are dark otherwise. */
.take-in :deep(.n-button) {
  background: var(--chalk);
}

.empty {
  display: grid;
  gap: 14px;
  justify-items: start;
  max-width: 620px;
  padding: 28px;
}

.rows {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 10px;
}
</style>
