<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { NButton } from 'naive-ui'
import { ref } from 'vue'

import { Refusal, ServerAway } from '@/shared/api/client'
import FileButton from '@/shared/form/FileButton.vue'
import LengthInput from '@/shared/form/LengthInput.vue'
import LabelledSelect from '@/shared/form/LabelledSelect.vue'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'
import { useForm } from '@/shared/offline/typed'
import { plural } from '@/shared/words/words'

import { type Evenings, takeCalendar } from './api'
import { dayWords } from '@/shared/words/days'

/** When one is usually free, and when not after all: single days, or what a calendar says. */
const props = defineProps<{ evenings: Evenings }>()
const { send, tried } = useOutbox()
const undo = useUndo()
const client = useQueryClient()
const week = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']
const weekdays = week.map((label, value) => ({ value, label }))
const { typed, hand } = useForm('free time', () => ({ weekday: 1, begins: '19:30', ends: '21:00' }))
const { typed: away, hand: handAway } = useForm('not free', () => ({ day: '' }))
const problems = ref<Record<string, string>>({})

function refuse(error: unknown, at: string) {
  if (!(error instanceof Refusal || error instanceof ServerAway)) throw error
  const found = error instanceof Refusal ? error.problem.errors : []
  problems.value = found.length
    ? Object.fromEntries(found.map((e) => [e.field || at, e.message]))
    : { [at]: error.message }
}

async function add() {
  problems.value = {}
  try {
    const changes = { ...typed }
    await hand(() => tried({ kind: 'put_free', free: crypto.randomUUID(), changes, seen: {} }))
  } catch (error) {
    refuse(error, 'begins')
  }
}

function remove(free: string, said: string) {
  send({ kind: 'delete_free', free })
  undo(`${said} was taken away.`, () => send({ kind: 'restore_free', free }))
}

async function busy() {
  problems.value = {}
  try {
    await handAway(() => tried({ kind: 'put_busy_day', on: away.day.trim() }))
  } catch (error) {
    refuse(error, 'day')
  }
}

async function open(file: File) {
  problems.value = {}
  if (file.size > 1_500_000) {
    problems.value = { text: 'This calendar is larger than 1.5 MB. Save one with fewer years in it.' }
    return
  }
  try {
    client.setQueryData(['evenings'], await takeCalendar(file.name.slice(0, 120), await file.text()))
    void client.invalidateQueries({ queryKey: ['project-time'] })
  } catch (error) {
    refuse(error, 'text')
  }
}
</script>

<template>
  <section class="sheet" aria-label="Free time">
    <h2>Usually free</h2>
    <ul v-if="props.evenings.free.length">
      <li v-for="f in props.evenings.free" :key="f.id">
        <span
          >{{ week[f.weekday] }} <span class="number">{{ f.begins }} to {{ f.ends }}</span></span
        >
        <NButton
          text
          :aria-label="`Take away ${week[f.weekday]} ${f.begins}`"
          @click="remove(f.id, `${week[f.weekday]} ${f.begins}`)"
          >Take away</NButton
        >
      </li>
    </ul>
    <form @submit.prevent="add">
      <LabelledSelect v-model="typed.weekday" label="Day of the week" :options="weekdays" />
      <LengthInput v-model="typed.begins" label="From" words :problem="problems.begins" @enter="add" />
      <LengthInput v-model="typed.ends" label="To" words :problem="problems.ends" @enter="add" />
      <NButton attr-type="submit">Add this time</NButton>
    </form>
    <h3>Not free after all</h3>
    <ul v-if="props.evenings.days.length || props.evenings.sources.length">
      <li v-for="d in props.evenings.days" :key="d">
        <span>{{ dayWords(d) }}</span>
        <NButton
          text
          :aria-label="`Free again on ${dayWords(d)}`"
          @click="send({ kind: 'delete_busy_day', on: d })"
          >Free again</NButton
        >
      </li>
      <li v-for="s in props.evenings.sources" :key="s.name">
        <span
          >{{ s.name }}
          <span class="soft">{{ plural(s.count, 'time') }}, to {{ dayWords(s.until) }}</span></span
        >
        <NButton
          text
          :aria-label="`Leave out ${s.name}`"
          @click="send({ kind: 'leave_calendar', calendar: s.name })"
          >Leave it out</NButton
        >
      </li>
    </ul>
    <form class="day" @submit.prevent="busy">
      <LengthInput
        v-model="away.day"
        label="Not free on"
        words
        placeholder="2026-12-24"
        :problem="problems.day"
        @enter="busy"
      />
      <NButton attr-type="submit" :disabled="!away.day.trim()">Not this day</NButton>
    </form>
    <FileButton accept=".ics,text/calendar" @file="open">Take in a calendar</FileButton>
    <p v-if="problems.text" class="serious" role="alert">{{ problems.text }}</p>
    <p class="soft">
      A file in the iCalendar format. Only when you are busy is kept of it, for the next year; the same file
      taken in again replaces it.
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 2px 16px;
  padding: 5px 0;
  border-top: 1px solid var(--steel-mid);
}

form {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px 12px;
  align-items: end;
}

form .n-button {
  justify-self: start;
}

.day {
  grid-template-columns: minmax(0, 1fr) auto;
}
</style>
