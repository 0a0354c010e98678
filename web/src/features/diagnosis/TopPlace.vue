<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import RowInput from '@/shared/form/RowInput.vue'
import Len from '@/shared/words/Len.vue'

import { useOneLength } from './useOneLength'

/** One place where the top is measured; what is typed is kept when one leaves the field. */
const props = defineProps<{ project: string; step: string; place: Schemas['TopReading'] }>()
const { typed, problem, save } = useOneLength(
  () => props.place.value?.text ?? '',
  { thing: () => `top ${props.project} ${props.place.key}` },
  (edit) => ({ kind: 'put_top_measured', project: props.project, place: props.place.key, ...edit }),
)
</script>

<template>
  <li>
    <span aria-hidden="true">{{ place.where }}</span>
    <RowInput
      v-model="typed.value"
      length
      :wrong="problem !== ''"
      :labelled="`${step}: ${place.where}`"
      @keep="save"
    />
    <span v-if="problem" class="serious" role="alert">{{ problem }}</span>
    <span v-else-if="place.stale" class="soft">
      measured under another plan; should be <Len :of="place.planned" about /> now
    </span>
    <span v-else-if="place.note" class="soft">{{ place.note }}</span>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 150px 150px minmax(0, 1fr);
  gap: 12px;
  align-items: center;
}

@media (width <= 560px) {
  li {
    grid-template-columns: 120px minmax(0, 1fr);
  }

  li > :nth-child(3) {
    grid-column: 1 / -1;
  }
}
</style>
