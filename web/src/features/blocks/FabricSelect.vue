<script setup lang="ts">
import { computed } from 'vue'

import type { Project } from '@/shared/api/client'

/** One of the project's fabrics, with its colour beside the name. */
const props = defineProps<{ label: string; project: Project }>()
const role = defineModel<string>({ required: true })
const colour = computed(() => props.project.fabrics.find((f) => f.role === role.value)?.colour)
</script>

<template>
  <label class="field">
    {{ label }}
    <span>
      <i :style="{ background: colour }" aria-hidden="true" />
      <select v-model="role">
        <option v-if="!colour" :value="role">no fabric yet</option>
        <option v-for="f in project.fabrics" :key="f.id" :value="f.role">{{ f.name }}</option>
      </select>
    </span>
  </label>
</template>

<style scoped>
.field {
  display: grid;
  gap: 3px;
  font-stretch: 88%;
  font-weight: 550;
  min-width: 0;
}

span {
  display: grid;
  grid-template-columns: 14px minmax(0, 1fr);
  gap: 6px;
  align-items: stretch;
  height: 40px;
}

i {
  border: 1px solid var(--ink);
}
</style>
