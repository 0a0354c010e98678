<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'

import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'
import WaitingFor from '@/shared/ui/WaitingFor.vue'
import { plural } from '@/shared/words/words'

import { type SetUp, useRecords } from './api'
import FindSeam from './FindSeam.vue'
import SetUpForm from './SetUpForm.vue'
import TestsSheet from './TestsSheet.vue'
import { dayWords } from '@/shared/words/days'

/** The machine as it is set up now and as it was, and the seam tests sewn with it. */
const { data, error } = useRecords()
const { send } = useOutbox()
const undo = useUndo()
const current = computed(() => data.value?.set_ups.find((s) => s.in_use))
const others = computed(() => data.value?.set_ups.filter((s) => !s.in_use) ?? [])
/** A form that is open: a machine that is new, one that comes from this one, or this one put right. */
const open = ref<'' | 'new' | 'change' | 'correct'>('')
const about = (s: SetUp) =>
  [
    s.foot && `${s.foot} foot`,
    s.plate && `${s.plate} plate`,
    s.needle && `needle ${s.needle}`,
    s.thread && `thread ${s.thread}`,
    s.stitch_length && `stitch ${s.stitch_length}`,
    s.needle_position && `needle position ${s.needle_position}`,
    s.guide && `guide at ${s.guide.pretty}`,
    s.pressing === 'open' ? 'pressed open' : 'pressed to one side',
    s.starch && 'starched',
  ]
    .filter(Boolean)
    .join(', ')

function remove(s: SetUp) {
  send({ kind: 'delete_set_up', set_up: s.id })
  undo(`${s.name} was taken away with its tests.`, () => send({ kind: 'restore_set_up', set_up: s.id }))
}
</script>

<template>
  <main id="main" class="records">
    <h2 class="visually-hidden">Machine and seam</h2>
    <WaitingFor v-if="!data && !error" what="your records" />
    <p v-else-if="!data" class="sheet" role="alert">{{ error?.message }}</p>
    <template v-else>
      <div class="left">
        <FindSeam
          v-if="current"
          :key="current.id"
          :set-up="current"
          :search="data.search"
          :strip="data.strip"
        />
        <TestsSheet v-if="current" :set-up="current" :today="data.today" />
      </div>
      <div class="right">
        <section class="sheet" aria-label="In use">
          <template v-if="current && open !== 'correct' && open !== 'change'">
            <p class="soft">In use since {{ dayWords(current.began) }}</p>
            <h2>{{ current.machine }}</h2>
            <p>{{ about(current) }}.</p>
            <p v-if="current.note" class="soft">{{ current.note }}</p>
            <div class="acts">
              <NButton type="primary" @click="open = 'change'">Change something</NButton>
              <NButton text class="quiet" @click="open = 'correct'">Put a mistake right</NButton>
              <NButton text class="quiet" @click="open = 'new'">Another machine</NButton>
            </div>
            <p class="soft">
              A new needle, foot or thread begins a new set-up: what was sewn before keeps the old one.
            </p>
          </template>
          <template v-if="!current">
            <h2>The machine you sew with</h2>
            <p>
              Write down what you would want to know again when a seam comes out otherwise. Its seam tests,
              and what you read in projects from now on, belong to it.
            </p>
          </template>
          <SetUpForm
            v-if="!current || open"
            :key="open"
            :of="open === 'correct' || open === 'change' ? current : undefined"
            :fresh="open !== 'correct'"
            :leave="!!current"
            @done="open = ''"
          />
        </section>
        <section v-if="others.length" class="sheet" aria-label="Earlier and other set-ups">
          <h2>Earlier and others</h2>
          <ul>
            <li v-for="s in others" :key="s.id">
              <span>
                <strong>{{ s.machine }}</strong>, {{ about(s) }}; since {{ dayWords(s.began) }},
                {{ plural(s.tested, 'test') }}
              </span>
              <span class="acts">
                <NButton
                  text
                  :aria-label="`Use ${s.name}`"
                  @click="send({ kind: 'use_set_up', set_up: s.id })"
                  >Use it</NButton
                >
                <NButton text :aria-label="`Take away ${s.name}`" @click="remove(s)">Take away</NButton>
              </span>
            </li>
          </ul>
        </section>
      </div>
    </template>
  </main>
</template>

<style scoped>
.records {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}

.left,
.right {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}

.left:empty {
  display: none;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 20px;
  margin: 12px 0 6px;
}

ul {
  list-style: none;
  margin: 10px 0 0;
  padding: 0;
}

li {
  display: grid;
  gap: 2px;
  padding: 8px 0;
  border-top: 1px solid var(--steel-mid);
}

li .acts {
  margin: 0;
}

@media (width <= 900px) {
  .records {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
