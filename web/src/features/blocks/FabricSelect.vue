<script setup lang="ts">
import { fabricOptions } from '@/shared/form/fabrics'
import SelectInput from '@/shared/form/SelectInput.vue'
import { computed } from 'vue'

import type { Project } from '@/shared/api/client'

/** One of the project's fabrics, with its colour beside the name. */
const props = defineProps<{ label: string; project: Project }>()
const role = defineModel<string>({ required: true })
const options = computed(() => fabricOptions(props.project, role.value))
const colour = computed(() => props.project.fabrics.find((f) => f.role === role.value)?.colour)
</script>

<template>
  <div class="field">
    {{ label }}
    <span>
      <i :style="{ background: colour }" aria-hidden="true" />
      <SelectInput v-model="role" :labelled="label" :options="options" />
    </span>
  </div>
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
  min-height: 40px;
}

i {
  border: 1px solid var(--ink);
}
</style>
