<script setup lang="ts">
import { onlineManager } from '@tanstack/vue-query'
import { NButton } from 'naive-ui'
import { computed, onScopeDispose, ref } from 'vue'

import { refused } from '@/shared/offline/conflicts'
import { useWaiting } from '@/shared/offline/outbox'
import { plural } from '@/shared/words/words'

const here = ref(onlineManager.isOnline())
onScopeDispose(onlineManager.subscribe((on) => (here.value = on)))

const waiting = useWaiting()
const count = computed(() => waiting.value.length)
const typed = (o: object) =>
  'changes' in o
    ? Object.values(o.changes as object)
        .filter(Boolean)
        .join(', ')
    : ''
</script>

<template>
  <div aria-live="polite">
    <p v-if="!here" class="notice" role="status">
      <strong>The server is away.</strong>
      <template v-if="count">
        {{ plural(count, 'change') }} {{ count === 1 ? 'is' : 'are' }} kept in this browser and sent when it
        is back.
      </template>
      <template v-else>What you type is kept in this browser and sent when it is back.</template>
    </p>
    <p v-for="(r, i) in refused" :key="i" class="notice refused" role="alert">
      <span>
        <strong>Not taken{{ typed(r.outgoing) ? `: ${typed(r.outgoing)}.` : '.' }}</strong>
        {{ r.refusal.problem.detail }}
      </span>
      <NButton size="small" @click="refused.splice(i, 1)">Put away</NButton>
    </p>
  </div>
</template>

<style scoped>
.notice {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  justify-content: space-between;
  padding: 10px 24px;
  background: var(--oilskin);
  color: var(--ink);
  justify-content: flex-start;
}

.refused {
  background: #f6d9d5;
  border-bottom: 1px solid var(--buoy);
}
</style>
