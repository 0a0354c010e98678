<script setup lang="ts">
import { usePreference } from '@/shared/offline/preference'
import { RouterLink } from 'vue-router'

import type { Project } from '@/shared/api/client'
import { kindWords } from '@/shared/words/words'
import Choice from '@/shared/form/Choice.vue'

/** Paper for the table: what can be printed, and the ticket on screen. */
const props = defineProps<{ project: Project }>()
const page = usePreference<string>('paper', 'a4')
const paper = (name: string) => `/api/projects/${props.project.id}/papers/${name}.pdf?page=${page.value}`
const template = (unit: string) => `/api/units/${unit}/papers/template.pdf?page=${page.value}`
</script>

<template>
  <section class="sheet" aria-label="Paper for the table">
    <h2>Paper for the table</h2>
    <Choice
      v-model="page"
      label="Printed on"
      :options="[
        { value: 'a4', label: 'A4' },
        { value: 'letter', label: 'Letter' },
      ]"
    />
    <ul>
      <li>
        <RouterLink :to="{ name: 'ticket', params: { project: project.id } }"
          >Bench ticket on screen</RouterLink
        >
      </li>
      <li><a :href="paper('ticket')" target="_blank">Bench ticket</a></li>
      <li><a :href="paper('labels')" target="_blank">Labels for piles and lots</a></li>
      <li><a :href="paper('cutting-plan')" target="_blank">Cutting plan</a></li>
      <li v-for="u in project.units" :key="u.id">
        <a :href="template(u.id)" target="_blank">
          Trim template, {{ kindWords[u.kind]?.name.toLowerCase() }} {{ u.width_shown.pretty }}
        </a>
      </li>
    </ul>
    <p class="soft">Print at 100 %, and lay a ruler on the two squares before using a template.</p>
  </section>
</template>

<style scoped>
ul {
  margin: 10px 0;
  padding-left: 18px;
  display: grid;
  gap: 4px;
}
</style>
