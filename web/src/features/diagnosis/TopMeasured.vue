<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'

import TopPlace from './TopPlace.vue'

/** The top measured as it grows, and what is cut to it. */
defineProps<{ project: string; steps: Schemas['TopStep'][] }>()
</script>

<template>
  <section class="sheet" aria-label="The top as it grows">
    <h2>The top as it grows</h2>
    <p class="soft">Raw edge to raw edge, both allowances counted.</p>
    <div v-for="s in steps" :key="s.key" class="step" role="group" :aria-label="s.title">
      <h3>{{ s.title }}</h3>
      <p class="soft">{{ s.how }}</p>
      <ul>
        <TopPlace v-for="r in s.readings" :key="r.key" :project="project" :step="s.title" :place="r" />
      </ul>
      <p v-for="text in s.said" :key="text" class="said">{{ text }}</p>
    </div>
  </section>
</template>

<style scoped>
.step {
  margin-top: 14px;
  padding-top: 12px;
  border-top: 1px solid var(--steel-mid);
}

h3 {
  margin: 0;
}

ul {
  display: grid;
  gap: 6px;
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}

.said {
  margin: 8px 0 0;
  font-weight: 600;
}
</style>
