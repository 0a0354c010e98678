<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed } from 'vue'
import { RouterLink, useRoute } from 'vue-router'

import type { Change } from '@/shared/offline/change'
import { refused } from '@/shared/offline/conflicts'
import { useWaiting } from '@/shared/offline/outbox'
import { changes, remove } from '@/shared/offline/queue'
import { reachable } from '@/shared/offline/reachable'
import { storage } from '@/shared/offline/store'
import { plural } from '@/shared/words/words'

const route = useRoute()
const waiting = useWaiting()
const count = computed(() => waiting.value.length)
const stuck = computed(() => changes.value.filter((c) => c.tries).length)
/** What was refused of a change, or all of it where no field is named, as it was typed: what was picked has a name on its page only. */
function typedWords({ what, problem }: Change) {
  if (!('changes' in what)) return ''
  const all = Object.entries(what.changes)
  const named = all.filter(([f]) => problem?.errors.some((e) => e.field === f))
  return (named.length ? named : all)
    .map(([, v]) => v as unknown)
    .filter((v) => v && typeof v !== 'object' && v !== true && !/^[a-z]+_[a-z_]+$/.test(String(v)))
    .join(', ')
}
</script>

<template>
  <div aria-live="polite">
    <p v-if="!reachable" class="notice" role="status">
      <strong>The server is away.</strong>
      <template v-if="count">
        {{ plural(count, 'change') }} {{ count === 1 ? 'is' : 'are' }} kept in this browser and sent when it
        is back.
      </template>
      <template v-else>What you type is kept in this browser and sent when it is back.</template>
      You see what it last said; new figures come with it.
    </p>
    <p v-else-if="stuck" class="notice" role="status">
      <strong>{{ plural(stuck, 'change') }} could not be written yet.</strong> It is kept in this browser and
      tried again.
    </p>
    <p v-if="storage !== 'kept'" class="notice" role="status">
      <strong>This browser keeps nothing for you.</strong>
      {{
        storage === 'full'
          ? 'Its storage is full.'
          : 'Its storage is switched off for this page, as private windows do.'
      }}
      What you type goes to the server as always; while the server is away, leave this page open.
    </p>
    <p v-for="r in refused" :key="r.id" class="notice refused" role="alert">
      <span>
        <strong>Not taken{{ typedWords(r) ? `: ${typedWords(r)}.` : '.' }}</strong>
        {{ r.problem?.detail }}
      </span>
      <RouterLink v-if="r.from && r.from !== route.fullPath" :to="r.from">Where it was typed</RouterLink>
      <NButton size="small" @click="remove(r)">Put away</NButton>
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
