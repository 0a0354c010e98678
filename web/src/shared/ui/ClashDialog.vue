<script setup lang="ts">
import { NButton, NModal, NTable } from 'naive-ui'
import { computed } from 'vue'

import type { Editing } from '@/shared/offline/change'
import { clashes } from '@/shared/offline/conflicts'
import type { Outgoing } from '@/shared/offline/outgoing'
import { only, remove, sendAgain } from '@/shared/offline/queue'

/** What another window changed first, one question after another; both versions are kept until one is chosen. */
const clash = computed(() => clashes.value[0])

/** Their value becomes what was seen, so that mine is written knowingly. */
function keepMine() {
  const c = clash.value
  if (!c) return
  const what = c.change.what as Editing
  const seen: Record<string, unknown> = { ...what.seen }
  const changes = what.changes as Record<string, unknown>
  for (const f of c.fields) {
    // A layout or a list of borders is told in words, which is nothing to compare with: it is written as chosen.
    if (typeof changes[f.field] === 'object') delete seen[f.field]
    else seen[f.field] = f.here
  }
  sendAgain(c.change, { ...what, seen } as Outgoing)
}

/** What they did not touch is mine all the same. */
function keepTheirs() {
  const c = clash.value
  if (!c) return
  const rest = only(c.change.what as Editing, (f) => !c.fields.some((x) => x.field === f))
  if (rest) sendAgain(c.change, rest)
  else void remove(c.change)
}
</script>

<template>
  <NModal
    :show="!!clash"
    preset="dialog"
    title="Changed in another window"
    :closable="false"
    :mask-closable="false"
    :show-icon="false"
    aria-label="Changed in another window"
  >
    <p>
      Another window changed this after it was read here. Nothing was overwritten. Which should stay?
      <template v-if="clashes.length > 1">{{ clashes.length - 1 }} more to decide after this.</template>
    </p>
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
      <NButton @click="keepTheirs">Keep theirs</NButton>
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
