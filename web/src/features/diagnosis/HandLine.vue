<script setup lang="ts">
import { NButton, NInput } from 'naive-ui'
import { ref } from 'vue'

import SelectInput from '@/shared/form/SelectInput.vue'
import { spots } from '@/shared/words/spots'
import { readingWords } from '@/shared/words/words'

/** One reading typed by hand. */
const props = defineProps<{ kind: string; n: number; problem?: string }>()
const value = defineModel<string>('value', { required: true })
const whole = defineModel<string>('whole', { required: true })
const spot = defineModel<string>('spot', { default: 'middle' })
const emit = defineEmits<{ away: []; next: [] }>()
const line = ref<HTMLElement>()
/** Strips are read twice; then it is the next reading's turn. */
function goOn() {
  if (props.kind === 'strip_test' && !whole.value.trim())
    line.value?.querySelectorAll<HTMLInputElement>('input')[1]?.focus()
  else emit('next')
}
</script>

<template>
  <div ref="line" class="line">
    <span>{{ readingWords[kind]?.name }}</span>
    <NInput
      v-model:value="value"
      class="size"
      :status="problem ? 'error' : undefined"
      :input-props="{ 'aria-label': `${readingWords[kind]?.name}, line ${n + 1}` }"
      @keydown.enter.prevent="goOn"
    />
    <NInput
      v-if="kind === 'strip_test'"
      v-model:value="whole"
      class="size"
      placeholder="all three"
      :input-props="{ 'aria-label': `All three strips, line ${n + 1}` }"
      @keydown.enter.prevent="goOn"
    />
    <SelectInput
      v-if="kind === 'stitch'"
      v-model="spot"
      class="spot"
      :labelled="`Where along the seam of line ${n + 1}`"
      :options="spots"
    />
    <NButton quaternary size="small" :aria-label="`Take line ${n + 1} away`" @click="emit('away')">
      Take away
    </NButton>
    <span v-if="problem" class="serious" role="alert">{{ problem }}</span>
  </div>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
}

.line > span:first-child {
  width: 165px;
}

.size {
  width: 110px;
}

.spot {
  width: 150px;
}
</style>
