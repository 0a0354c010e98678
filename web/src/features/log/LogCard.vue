<script setup lang="ts">
import { NButton, NImage, NImageGroup, useMessage } from 'naive-ui'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'

import FileButton from '@/shared/form/FileButton.vue'
import SelectInput from '@/shared/form/SelectInput.vue'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox, useWaiting } from '@/shared/offline/outbox'

import { reasonWords } from '@/shared/words/words'

import type { LogRow } from './api'
import EntryForm from './EntryForm.vue'
import { shrunk } from './shrink'
import { dayWords } from '@/shared/words/days'

/** One thing of the log: as it was said, in her own words, with photos; put right or taken out. */
const props = defineProps<{ row: LogRow; today: string; still?: boolean }>()
const { send } = useOutbox()
const undo = useUndo()
const message = useMessage()
const waiting = useWaiting()
const mine = computed(() => ['trial', 'note', 'learned'].includes(props.row.kind))
const editing = ref(false)
const coming = computed(
  () => waiting.value.filter((o) => o.kind === 'put_photo' && o.entry === props.row.id).length,
)
const reasons = computed(() => [
  { value: '' as LogRow['why'], label: 'no reason given' },
  ...Object.entries(reasonWords).map(([value, label]) => ({ value: value as LogRow['why'], label })),
])
const why = computed({
  get: () => props.row.why,
  set: (now) =>
    props.row.project &&
    send({
      kind: 'say_why',
      project: props.row.project,
      done: props.row.id,
      changes: { why: now },
      seen: { why: props.row.why },
    }),
})
const planWith = () => {
  if (!props.row.unit || !props.row.project) return
  const ids = { project: props.row.project, unit: props.row.unit }
  send({ kind: 'change_unit', ...ids, changes: { cuts: props.row.cuts }, seen: {} })
  message.success('The unit is planned with these sizes now.')
}

async function photograph(file: File) {
  const image = await shrunk(file)
  if (!image) {
    message.error('This file is no photo that can be shown here. Choose a JPEG or PNG.')
    return
  }
  send({ kind: 'put_photo', entry: props.row.id, photo: crypto.randomUUID(), image, caption: '' })
}

function remove() {
  send({ kind: 'delete_entry', entry: props.row.id })
  undo('It was taken out of the log.', () => send({ kind: 'restore_entry', entry: props.row.id }))
}

function removePhoto(photo: string) {
  send({ kind: 'delete_photo', photo })
  undo('The photo was taken out.', () => send({ kind: 'restore_photo', photo }))
}
</script>

<template>
  <article :aria-label="`${row.title}, ${dayWords(row.day)}`">
    <p class="when soft">
      {{ dayWords(row.day)
      }}<template v-if="row.project && !still"
        >,
        <RouterLink :to="{ name: 'standing', params: { project: row.project } }">{{
          row.project_name
        }}</RouterLink></template
      >
    </p>
    <h3>{{ row.title }}</h3>
    <p v-for="l in row.lines" :key="l">{{ l }}</p>
    <EntryForm
      v-if="editing"
      :kind="row.kind === 'learned' ? 'learned' : 'note'"
      :project="row.project ?? ''"
      :today="today"
      :of="row"
      @done="editing = false"
    />
    <p v-else-if="row.text" class="own">{{ row.text }}</p>
    <NImageGroup v-if="row.photos.length">
      <div class="photos">
        <figure v-for="p in row.photos" :key="p.id">
          <NImage
            :src="`/api/photos/${p.id}`"
            :alt="p.caption || `Photo of ${dayWords(row.day)}`"
            height="150"
            object-fit="cover"
          />
          <NButton v-if="!still" text @click="removePhoto(p.id)">Take it out</NButton>
        </figure>
      </div>
    </NImageGroup>
    <p v-if="coming" class="soft" role="status">A photo is on its way.</p>
    <div v-if="!still" class="acts">
      <template v-if="mine">
        <FileButton accept="image/*" @file="photograph">Add a photo</FileButton>
        <NButton v-if="!editing" text :aria-label="`Put right: ${row.title}`" @click="editing = true"
          >Put right</NButton
        >
        <NButton v-if="row.kind === 'trial' && row.unit" text @click="planWith"
          >Plan with these sizes</NButton
        >
        <NButton text :aria-label="`Take out: ${row.title}`" @click="remove">Take out</NButton>
      </template>
      <div v-else-if="row.kind === 'remade'" class="why">
        <SelectInput v-model="why" labelled="Why it was made again" :options="reasons" small />
      </div>
    </div>
  </article>
</template>

<style scoped>
article {
  display: grid;
  gap: 4px;
  padding: 12px 0;
  border-top: 1px solid var(--steel-mid);
}

.own {
  white-space: pre-line;
  border-left: 6px solid var(--oilskin);
  padding-left: 12px;
}

.photos {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin: 6px 0;
}

figure {
  display: grid;
  justify-items: start;
  gap: 2px;
  margin: 0;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 20px;
  align-items: center;
}

.why {
  width: min(100%, 280px);
}
</style>
