<script setup lang="ts">
import { RouterLink, RouterView } from 'vue-router'

/** What a quilter keeps of her machine, her hands and her diagnoses. */
const pages = [
  { name: 'records', title: 'Machine and seam' },
  { name: 'hands', title: 'Hands' },
  { name: 'foretold', title: 'Will it come out?' },
  { name: 'kept-diagnoses', title: 'Diagnoses' },
  { name: 'log', title: 'Log' },
  { name: 'minutes', title: 'Minutes' },
  { name: 'evenings', title: 'Evenings' },
]
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Records</h1>
      <nav aria-label="Records">
        <RouterLink v-for="p in pages" :key="p.name" :to="{ name: p.name }">{{ p.title }}</RouterLink>
      </nav>
    </div>
    <RouterView />
  </div>
</template>

<style scoped>
.page {
  max-width: 1200px;
  margin: 0 auto;
  padding: 20px 24px 40px;
}

.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: space-between;
  gap: 8px 28px;
  margin-bottom: 14px;
}

h1 {
  color: var(--chalk);
}

nav {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 24px;
}

nav a {
  color: var(--chalk);
  text-decoration: none;
  padding: 4px 2px;
  border-bottom: 2px dashed transparent;
}

nav a.router-link-exact-active,
nav a:hover {
  border-bottom-color: var(--oilskin);
}

@media (width <= 900px) {
  .page {
    padding-inline: 12px;
  }
}
</style>
