<script setup lang="ts">
import { NButton, NModal, NTable } from 'naive-ui'

import { clash } from '@/shared/offline/conflicts'
import { useOutbox } from '@/shared/offline/outbox'
import type { Outgoing } from '@/shared/offline/outgoing'

const { send } = useOutbox()

/** Their value becomes what was seen, so that mine is written knowingly. */
function keepMine() {
  const c = clash.value
  clash.value = null
  if (!c) return
  const seen: Record<string, unknown> = { ...c.outgoing.seen }
  const changes = c.outgoing.changes as Record<string, unknown>
  for (const f of c.fields) {
    // A layout or a list of borders is told in words, which is nothing to compare with: it is written as chosen.
    if (typeof changes[f.field] === 'object') delete seen[f.field]
    else seen[f.field] = f.here
  }
  send({ ...c.outgoing, seen } as Outgoing)
}
</script>

<template>
  <NModal
    :show="clash !== null"
    preset="dialog"
    title="Changed in another window"
    :closable="false"
    :mask-closable="false"
    :show-icon="false"
    aria-label="Changed in another window"
  >
    <p>Another window changed this after it was read here. Nothing was overwritten. Which should stay?</p>
    <NTable v-if="clash" size="small" :bordered="false">
      <thead>
        <tr>
          <th scope="col">Field</th>
          <th scope="col">There</th>
          <th scope="col">Here</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="f in clash.fields" :key="f.field">
          <td>{{ f.field.replaceAll('_', ' ') }}</td>
          <td class="number">{{ f.here || '(empty)' }}</td>
          <td class="number">{{ f.mine || '(empty)' }}</td>
        </tr>
      </tbody>
    </NTable>
    <template #action>
      <NButton @click="clash = null">Keep theirs</NButton>
      <NButton type="primary" @click="keepMine">Keep mine</NButton>
    </template>
  </NModal>
</template>

<style scoped>
table {
  margin-top: 12px;
  border-collapse: collapse;
}

th,
td {
  text-align: left;
  padding: 4px 18px 4px 0;
}
</style>
