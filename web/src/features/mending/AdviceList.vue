<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import Len from '@/shared/ui/Len.vue'

defineProps<{ title: string; advice: Schemas['Advice'][]; none: string }>()
</script>

<template>
  <section class="sheet" :aria-label="title">
    <h3>{{ title }}</h3>
    <p v-if="!advice.length" class="soft">{{ none }}</p>
    <ol v-else>
      <li v-for="a in advice" :key="a.code" :class="{ cannot: !a.possible }">
        <strong>{{ a.title }}</strong>
        <p>{{ a.how }}</p>
        <p v-if="a.why_not" class="serious">Not possible here: {{ a.why_not }}</p>
        <p v-else-if="a.row_becomes" class="soft">The row then measures <Len :of="a.row_becomes" />.</p>
      </li>
    </ol>
  </section>
</template>

<style scoped>
ol {
  margin: 6px 0 0;
  padding-left: 22px;
  display: grid;
  gap: 10px;
}

.cannot strong {
  text-decoration: line-through;
}
</style>
