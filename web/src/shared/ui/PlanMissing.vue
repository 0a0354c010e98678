<script setup lang="ts">
import { RouterLink } from 'vue-router'

/** A later stage without a plan to stand on: says why, and leads back. */
defineProps<{ error: Error; project: string; unit: string }>()
</script>

<template>
  <section class="sheet" role="alert">
    <h2>The plan is not finished</h2>
    <p>{{ error.message }}</p>
    <p><RouterLink :to="{ name: 'plan', params: { project, unit } }">Go to the plan</RouterLink></p>
  </section>
</template>
