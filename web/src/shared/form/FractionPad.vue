<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { NButton, NModal } from 'naive-ui'
import { computed, ref, watch } from 'vue'

import { measureInHand } from './measure'

/** Lengths by thumb: whole, then the marks of a ruler; or millimetres. Only where there is a touch screen. */
const props = defineProps<{ modelValue: string; label: string }>()
const emit = defineEmits<{ 'update:modelValue': [string]; done: [] }>()
const touch = useMediaQuery('(pointer: coarse)')
const open = ref(false)
const whole = ref('')
const part = ref('')
const digits = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '0']
const marks = [8, 16, 32].map((d) => ({
  of: d,
  name: { 8: 'Eighths', 16: 'Sixteenths', 32: 'Thirty-seconds' }[d],
  // Those that the coarser row does not show already.
  list: Array.from({ length: d - 1 }, (_, i) => i + 1).filter((n) => d === 8 || n % 2 === 1),
}))
const fractionText = (n: number, d: number) => {
  let [a, b] = [n, d]
  while (a % 2 === 0) [a, b] = [a / 2, b / 2]
  return `${a}/${b}`
}
const text = computed(() =>
  measureInHand.value === 'mm'
    ? whole.value
      ? `${whole.value} mm`
      : ''
    : [whole.value, part.value].filter(Boolean).join(' '),
)
watch(open, (now) => {
  if (!now) return
  const typed = props.modelValue.replace(/["″]|mm/g, '').trim()
  const [, w = '', f = ''] = /^(\d+)?\s*(\d+\/\d+)?$/.exec(typed) ?? []
  whole.value = w
  part.value = f
})
function set() {
  emit('update:modelValue', text.value)
  open.value = false
  emit('done')
}
</script>

<template>
  <NButton v-if="touch" class="opener" :aria-label="`Marks of a ruler for ${label}`" @click="open = true"
    >1/8</NButton
  >
  <NModal v-model:show="open" preset="card" :title="label" class="pad" :style="{ width: 'min(560px, 96vw)' }">
    <p class="text" role="status">{{ text || 'nothing yet' }}</p>
    <div class="digits">
      <NButton v-for="d in digits" :key="d" @click="whole += d">{{ d }}</NButton>
      <NButton @click="whole = whole.slice(0, -1)">Back</NButton>
      <NButton
        @click="
          () => {
            whole = ''
            part = ''
          }
        "
        >Clear</NButton
      >
    </div>
    <template v-if="measureInHand === 'in'">
      <div v-for="row in marks" :key="row.of" class="marks" role="group" :aria-label="row.name">
        <NButton
          v-for="n in row.list"
          :key="n"
          :type="part === fractionText(n, row.of) ? 'primary' : 'default'"
          :aria-pressed="part === fractionText(n, row.of)"
          @click="part = part === fractionText(n, row.of) ? '' : fractionText(n, row.of)"
          >{{ fractionText(n, row.of) }}</NButton
        >
      </div>
    </template>
    <NButton type="primary" size="large" block :disabled="!text" @click="set">Use it</NButton>
  </NModal>
</template>

<style scoped>
.opener {
  min-width: 56px;
  min-height: 48px;
}

.text {
  font-size: 34px;
  font-weight: 600;
  margin-bottom: 8px;
}

.digits {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
  margin-bottom: 12px;
}

.marks {
  display: grid;
  grid-template-columns: repeat(8, minmax(0, 1fr));
  gap: 6px;
  margin-bottom: 12px;
}

.digits :deep(.n-button),
.marks :deep(.n-button) {
  min-height: 52px;
  padding: 0 2px;
}
</style>
