<script setup lang="ts">
import { fabricOptions } from '@/shared/form/fabrics'
import SelectInput from '@/shared/form/SelectInput.vue'
import { computed } from 'vue'

import { useKinds } from '@/features/projects'
import type { Project } from '@/shared/api/client'

/** Which fabric each part of the unit is cut from. */
const props = defineProps<{ kind: string; project: Project; problem?: string }>()
const fabrics = defineModel<string>({ required: true })
const { data: kinds } = useKinds()
const parts = computed(() => kinds.value?.find((k) => k.name === props.kind)?.parts ?? [])
const options = computed(() => fabricOptions(props.project))
const fabric = (role: string | undefined) => props.project.fabrics.find((f) => f.role === role)

function give(part: number, role: string) {
  const roles = [...fabrics.value]
  roles[part] = role
  fabrics.value = roles.join('')
}
</script>

<template>
  <div v-if="parts.length > 1" class="parts" role="group" aria-label="Fabric of each part">
    <label v-for="(p, i) in parts" :key="p">
      <i :style="{ background: fabric(fabrics[i])?.colour }" aria-hidden="true" />
      <span>{{ p }}</span>
      <SelectInput
        small
        :labelled="p"
        :model-value="fabrics[i] ?? ''"
        :options="options"
        @update:model-value="give(i, $event)"
      />
    </label>
    <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
  </div>
  <label v-else-if="parts.length" class="one">
    <span>Cut from</span>
    <SelectInput
      small
      labelled="Cut from"
      :model-value="fabrics[0] ?? ''"
      :options="options"
      @update:model-value="give(0, $event)"
    />
  </label>
</template>

<style scoped>
.parts {
  display: grid;
  gap: 4px;
}

label {
  display: grid;
  grid-template-columns: 16px minmax(0, 1fr) 150px;
  gap: 8px;
  align-items: center;
  line-height: 1.15;
}

.one {
  grid-template-columns: minmax(0, 1fr) 150px;
}

i {
  width: 16px;
  height: 16px;
  border: 1px solid var(--ink);
}
</style>
