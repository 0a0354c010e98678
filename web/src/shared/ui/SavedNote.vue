<script setup lang="ts">
import { onlineManager } from '@tanstack/vue-query'
import { computed, onScopeDispose, ref } from 'vue'

import { changes } from '@/shared/offline/queue'
import { storage } from '@/shared/offline/store'
import { unsent } from '@/shared/offline/typed'

/** What becomes of what is typed: saved is said only of what the server has, kept only of what storage has taken. */
const here = ref(onlineManager.isOnline())
onScopeDispose(onlineManager.subscribe((on) => (here.value = on)))
const said = computed(() => {
  const waiting = changes.value.filter((c) => c.state === 'waiting')
  if (changes.value.length > waiting.length) return 'To be decided'
  if (waiting.some((c) => c.tries) || (waiting.length && !here.value))
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
