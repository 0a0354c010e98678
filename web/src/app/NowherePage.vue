<script setup lang="ts">
import { RouterLink } from 'vue-router'
</script>

<template>
  <main id="main" class="sheet nowhere">
    <h1>Nothing lies here</h1>
    <p>This address belongs to no screen. The project may have been deleted, or the address mistyped.</p>
    <p><RouterLink to="/">Go to the projects</RouterLink></p>
  </main>
</template>

<style scoped>
.nowhere {
  max-width: 560px;
  margin: 48px auto;
  display: grid;
  gap: 12px;
}
</style>
