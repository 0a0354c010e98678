<script setup lang="ts">
import { NButton } from 'naive-ui'

import type { Schemas } from '@/shared/api/client'
import { reasonWords } from '@/shared/words/words'

/** Why a unit was spoiled, if one likes to say: it teaches later. Nothing waits for it. */
const emit = defineEmits<{ why: [Schemas['WhyPatchRequest']['why']]; leave: [] }>()
</script>

<template>
  <div class="why" role="group" aria-label="Why it was spoiled">
    <span>Why, if you like:</span>
    <NButton
      v-for="(said, code) in reasonWords"
      :key="code"
      size="small"
      @click="emit('why', code as Schemas['WhyPatchRequest']['why'])"
      >{{ said }}</NButton
    >
    <NButton text @click="emit('leave')">No matter</NButton>
  </div>
</template>

<style scoped>
.why {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
}
</style>
