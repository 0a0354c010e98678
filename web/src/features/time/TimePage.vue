<script setup lang="ts">
import { NTable } from 'naive-ui'

import { useOutbox } from '@/shared/offline/outbox'
import { useUndo } from '@/shared/notes/useUndo'
import WaitingFor from '@/shared/ui/WaitingFor.vue'
import { plural } from '@/shared/words/words'

import { useTimes } from './api'
import MinutesSheet from './MinutesSheet.vue'
import WearSheet from './WearSheet.vue'

/** Her own minutes: the pace of each stage, what was put down, and what wears with use. */
const { data, error } = useTimes()
const { send } = useOutbox()
const undo = useUndo()
const sure = { certain: 'certain', likely: 'likely', open: 'a first guess' }

function remove(id: string) {
  send({ kind: 'delete_time', time: id })
  undo('The minutes were taken away.', () => send({ kind: 'restore_time', time: id }))
}
</script>

<template>
  <main id="main" class="times">
    <h2 class="visually-hidden">Minutes</h2>
    <WaitingFor v-if="!data && !error" what="your minutes" />
    <p v-else-if="!data" class="sheet" role="alert">{{ error?.message }}</p>
    <template v-else>
      <section class="sheet" aria-label="Your pace">
        <h2>Your pace</h2>
        <p class="soft">
          From minutes of which it is known what was done in them. A forecast begins with what is usual and
          leans on yours as they come in; old ones count less.
        </p>
        <NTable size="small" :bordered="false">
          <thead>
            <tr>
              <th scope="col">Stage</th>
              <th scope="col">Pace</th>
              <th scope="col">Rests on</th>
              <th scope="col">Put down in all</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="s in data.stages" :key="s.stage">
              <th scope="row">{{ s.title }}</th>
              <td>{{ s.pace }}</td>
              <td>
                <template v-if="s.sittings">{{ plural(s.sittings, 'sitting') }}: {{ sure[s.sure] }}</template>
              </td>
              <td>{{ s.told }}</td>
            </tr>
          </tbody>
        </NTable>
      </section>
      <WearSheet :times="data" />
      <MinutesSheet :times="data" @remove="remove" />
    </template>
  </main>
</template>

<style scoped>
.times {
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}

.times > :last-child {
  grid-column: 1 / -1;
}

section {
  overflow-x: auto;
}

@media (width <= 900px) {
  .times {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
