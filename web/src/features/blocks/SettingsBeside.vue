<script setup lang="ts">
import { NButton, NTable } from 'naive-ui'

import type { Project, Schemas } from '@/shared/api/client'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'
import Len from '@/shared/words/Len.vue'

import { useBeside } from './api'

/** The quilt in other settings of about its size, side by side, with what each takes. */
const props = defineProps<{
  project: Project
  quilt: Schemas['QuiltView']
  colours: Record<string, string>
}>()
const { data } = useBeside(() => props.project.id)
const { send } = useOutbox()
const undo = useUndo()

const fields = ['setting', 'columns', 'rows', 'sash_round', 'cornerstones'] as const
function take(one: Schemas['Beside']) {
  const now = (of: Record<string, unknown>) => Object.fromEntries(fields.map((f) => [f, of[f]]))
  const before = { ...now(props.quilt), sash: props.quilt.sash.text, half_blocks: props.quilt.half_blocks }
  const project = props.project.id
  const changes = { ...now(one), sash: one.sash.text, half_blocks: false }
  send({ kind: 'change_quilt', project, changes, seen: {} })
  undo(`The quilt is set ${one.said}.`, () =>
    send({ kind: 'change_quilt', project, changes: before, seen: {} }),
  )
}
</script>

<template>
  <div class="beside">
    <p v-if="data && !data.length">
      A quilt laid by hand stands by itself. Set it straight, on point or staggered to compare these.
    </p>
    <div class="scroll" tabindex="0" role="region" aria-label="Ways to set the blocks">
      <NTable v-if="data?.length" size="small" :bordered="false">
        <thead>
          <tr>
            <th scope="col">Set</th>
            <th scope="col">Finishes</th>
            <th scope="col" class="n">Blocks</th>
            <th scope="col">Cloth between and round</th>
            <th scope="col">Seams to join it</th>
            <th scope="col"><span class="visually-hidden">Take it</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(one, n) in data" :key="one.said">
            <th scope="row">
              <CoreDrawing :drawing="one.picture" :colours="colours" :width="120" />
              {{ one.said }}
            </th>
            <td><Len :of="one.width" about /> × <Len :of="one.height" about /></td>
            <td class="n">{{ one.blocks }}</td>
            <td>{{ one.cloth }}</td>
            <td><Len :of="one.seams" about /></td>
            <td><NButton v-if="n" size="small" @click="take(one)">Set it so</NButton></td>
          </tr>
        </tbody>
      </NTable>
    </div>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}

th[scope='row'] {
  display: grid;
  grid-template-columns: 124px minmax(110px, 1fr);
  gap: 10px;
  align-items: center;
  font-weight: 550;
}

.n {
  text-align: right;
}
</style>
