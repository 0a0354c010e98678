<script setup lang="ts">
import { reachable } from '@/shared/offline/reachable'

/** What is being fetched; with the server away, that this browser has not seen it yet. */
defineProps<{ what: string }>()
</script>

<template>
  <p class="waiting" role="status">
    <template v-if="reachable">Fetching {{ what }}…</template>
    <template v-else>
      This browser has not seen {{ what }} before, so there is nothing to show until the server is back.
    </template>
  </p>
</template>

<style scoped>
.waiting {
  color: var(--chalk);
}
</style>
