<script setup lang="ts">
import { computed } from 'vue'

import { useWaiting } from '@/shared/offline/outbox'

const waiting = useWaiting()
const said = computed(() => (waiting.value.length ? 'Saving…' : 'All saved'))
</script>

<template>
  <span class="saved">{{ said }}</span>
</template>

<style scoped>
.saved {
  color: #b9d3d5;
}
</style>
