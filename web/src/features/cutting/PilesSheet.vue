<script setup lang="ts">
import { NButton, NTable } from 'naive-ui'
import { computed } from 'vue'

import type { Project, Schemas } from '@/shared/api/client'

import { useBench } from '@/features/projects'
import { useOutbox } from '@/shared/offline/outbox'

import PileRow from './PileRow.vue'

/** The ledger of cuts: everything to cut, pile by pile, each under the letter it keeps. */
const props = defineProps<{ piles: Schemas['Pile'][]; project: Project }>()
const emit = defineEmits<{ scraps: [string]; triangles: [string] }>()
const { data: bench } = useBench(() => props.project.id)
const short = computed(() => bench.value?.short ?? [])
const { send } = useOutbox()
function theyAreCut() {
  for (const s of short.value)
    send({
      kind: 'change_pile',
      project: props.project.id,
      letter: s.letter,
      changes: { cut: String(s.cut + s.short) },
      seen: { cut: String(s.cut) },
    })
}
const cut = computed(() => props.piles.reduce((n, p) => n + p.wanted - p.left, 0))
const wanted = computed(() => props.piles.reduce((n, p) => n + p.wanted, 0))
</script>

<template>
  <section class="sheet piles-sheet" aria-label="Piles">
    <h2>Piles</h2>
    <p v-if="!piles.length">
      Nothing to cut yet: plan a unit, or lay out a block; what it takes stands here by itself.
    </p>
    <template v-else>
      <p role="status">
        {{ cut ? `${cut} of ${wanted} pieces are cut.` : `${wanted} pieces to cut.` }}
        <span class="soft"
          >Ticking a strip fills its piles; what you count on the table can be typed here.</span
        >
      </p>
      <div v-if="short.length" class="short" role="status">
        The bench has taken more than is put down as cut:
        <span v-for="s in short" :key="s.letter"
          >{{ s.short }} of pile {{ s.letter }}{{ s === short[short.length - 1] ? '.' : ', ' }}</span
        >
        <NButton size="small" @click="theyAreCut">They are cut</NButton>
      </div>
      <div class="scrolls">
        <NTable size="small" :bordered="false" class="piles">
          <thead>
            <tr>
              <th scope="col"><span class="visually-hidden">Letter</span></th>
              <th scope="col">Pieces</th>
              <th scope="col" class="amount">Wanted</th>
              <th scope="col">Cut</th>
              <th scope="col">Spoiled</th>
              <th scope="col" class="amount">Left</th>
              <th scope="col"><span class="visually-hidden">What to do</span></th>
            </tr>
          </thead>
          <tbody>
            <PileRow
              v-for="p in piles"
              :key="p.letter"
              :pile="p"
              :project="project"
              @scraps="emit('scraps', p.letter)"
              @triangles="emit('triangles', p.letter)"
            />
          </tbody>
        </NTable>
      </div>
    </template>
  </section>
</template>

<style scoped>
.piles-sheet {
  min-width: 0;
}

.short {
  background: #fdf1d2;
  box-shadow: inset 5px 0 0 var(--oilskin);
  padding: 6px 12px;
  margin-top: 8px;
}

.scrolls {
  position: relative;
  overflow-x: auto;
  margin-top: 8px;
}

.piles {
  min-width: 620px;
  background: transparent;
}

.piles :deep(th),
.piles :deep(td) {
  padding: 6px 8px;
  background: transparent;
  vertical-align: middle;
}

.piles :deep(th:nth-child(4)),
.piles :deep(th:nth-child(5)) {
  width: 84px;
}

.piles :deep(th:last-child) {
  width: 140px;
}

.amount {
  text-align: right;
}
</style>
