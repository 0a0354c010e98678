<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'

import { useProjectTime } from './api'

/** How long the rest of a project takes, stage by stage, and whether it is in time. */
const props = defineProps<{ project: string }>()
const { data } = useProjectTime(() => props.project)
const basis = computed(() =>
  data.value?.sure === 'open'
    ? 'By what is usual, and by what few minutes of your own are put down.'
    : 'By your own minutes.',
)
</script>

<template>
  <section v-if="data?.stages.length" class="sheet" aria-label="Time">
    <h2>Time</h2>
    <p class="said">{{ data.said }}</p>
    <dl>
      <template v-for="s in data.stages" :key="s.stage">
        <dt>{{ s.title }}</dt>
        <dd>
          {{ s.told || 'done' }}<span v-if="s.spent" class="soft">, {{ s.spent }} so far</span>
        </dd>
      </template>
    </dl>
    <ul v-if="data.lates.length">
      <li v-for="l in data.lates.slice(0, 3)" :key="l.due"><b v-if="l.late">Late. </b>{{ l.said }}</li>
    </ul>
    <p class="soft">
      {{ basis }}
      <RouterLink :to="{ name: 'evenings' }">{{
        data.planned ? 'The evenings it is planned into' : 'Plan it into free evenings'
      }}</RouterLink>
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}

.said {
  font-weight: 600;
}

dl {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 4px 18px;
  margin: 0;
}

dd {
  margin: 0;
}

ul {
  margin: 0;
  padding-left: 20px;
}
</style>
