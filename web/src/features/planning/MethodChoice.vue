<script setup lang="ts">
import { NRadio, NRadioGroup } from 'naive-ui'
import { computed, useId } from 'vue'
import { RouterLink } from 'vue-router'

import { useKinds } from '@/features/projects'
import { methodWords } from '@/shared/words/words'

/** The ways of making this kind of unit; all of them stand side by side behind the link. */
const props = defineProps<{ kind: string; method: string; project: string; unit: string; problem?: string }>()
const emit = defineEmits<{ choose: [string] }>()
const { data: kinds } = useKinds()
const methods = computed(() => kinds.value?.find((k) => k.name === props.kind)?.methods ?? [])
const name = useId()
</script>

<template>
  <div v-if="methods.length > 1">
    <div :id="`${name}-by`" class="by">
      Made by
      <RouterLink :to="{ name: 'compare', params: { project, unit } }">Compare all ways</RouterLink>
    </div>
    <NRadioGroup
      :value="method"
      :name="name"
      role="radiogroup"
      :aria-labelledby="`${name}-by`"
      @update:value="emit('choose', $event)"
    >
      <NRadio v-for="m in methods" :key="m" :value="m" :class="{ on: m === method }">
        <strong>{{ methodWords(kind, m).name }}</strong> {{ methodWords(kind, m).line }}
      </NRadio>
    </NRadioGroup>
    <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.by {
  display: flex;
  justify-content: space-between;
  margin-bottom: 4px;
  font-stretch: 88%;
  font-weight: 550;
}

:deep(.n-radio-group) {
  display: grid;
}

:deep(.n-radio) {
  padding: 4px 6px;
  line-height: 1.2;
}

:deep(.n-radio.on) {
  background: #fdf1d2;
  box-shadow: inset 4px 0 0 var(--oilskin);
}
</style>
