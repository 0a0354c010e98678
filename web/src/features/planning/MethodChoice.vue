<script setup lang="ts">
import { computed, useId } from 'vue'
import { RouterLink } from 'vue-router'

import { useKinds } from '@/features/projects'
import { methodWords } from '@/shared/lib/words'

/** The ways of making this kind of unit; all of them stand side by side behind the link. */
const props = defineProps<{ kind: string; method: string; project: string; unit: string; problem?: string }>()
const emit = defineEmits<{ choose: [string] }>()
const { data: kinds } = useKinds()
const methods = computed(() => kinds.value?.find((k) => k.name === props.kind)?.methods ?? [])
const name = useId()
</script>

<template>
  <fieldset v-if="methods.length > 1">
    <legend>
      Made by
      <RouterLink :to="{ name: 'compare', params: { project, unit } }">Compare all ways</RouterLink>
    </legend>
    <label v-for="m in methods" :key="m" :class="{ on: m === method }">
      <input type="radio" :name="name" :value="m" :checked="m === method" @change="emit('choose', m)" />
      <span
        ><strong>{{ methodWords(kind, m).name }}</strong> {{ methodWords(kind, m).line }}</span
      >
    </label>
    <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
}

legend {
  display: flex;
  justify-content: space-between;
  width: 100%;
  padding: 0;
  margin-bottom: 4px;
  font-stretch: 88%;
  font-weight: 550;
}

label {
  display: grid;
  grid-template-columns: 20px 1fr;
  gap: 8px;
  align-items: start;
  padding: 4px 6px;
  line-height: 1.2;
  cursor: pointer;
}

label.on {
  background: #fdf1d2;
  box-shadow: inset 4px 0 0 var(--oilskin);
}

input {
  width: 18px;
  height: 18px;
  margin: 1px 0 0 4px;
  accent-color: var(--petrol);
}
</style>
