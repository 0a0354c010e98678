<script setup lang="ts">
import type { LengthOut } from '@/shared/api/client'

/** A length as the core sets it; says when it stands for a neighbour between two marks. */
defineProps<{ of: LengthOut; about?: boolean }>()
</script>

<template>
  <span class="number" :title="of.about ? 'to the nearest mark shown' : undefined"
    ><span v-if="about && of.about" aria-label="about">≈</span>{{ of.pretty }}</span
  >
</template>
