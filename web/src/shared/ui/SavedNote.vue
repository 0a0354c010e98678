<script setup lang="ts">
import { computed } from 'vue'

import { changes } from '@/shared/offline/queue'
import { reachable } from '@/shared/offline/reachable'
import { clashes, refused } from '@/shared/offline/conflicts'
import { storage } from '@/shared/offline/store'
import { unsent } from '@/shared/offline/typed'

/** What becomes of what is typed: saved is said only of what the server has, kept only of what storage has taken. */
const said = computed(() => {
  const waiting = changes.value.filter((c) => c.state === 'waiting')
  if (refused.value.length || clashes.value.length) return 'To be decided'
  if (waiting.some((c) => c.tries) || (waiting.length && !reachable.value))
    return waiting.every((c) => c.seq !== undefined) && storage.value === 'kept'
      ? 'Kept in this browser'
      : 'Only in this page'
  if (waiting.length) return 'Saving…'
  return unsent.value ? 'Not all saved' : 'All saved'
})
</script>

<template>
  <span class="saved">{{ said }}</span>
</template>

<style scoped>
.saved {
  color: #b9d3d5;
}
</style>
