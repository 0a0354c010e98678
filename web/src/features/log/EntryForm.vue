<script setup lang="ts">
import { NButton, NInput } from 'naive-ui'
import { computed, onMounted, ref } from 'vue'

import { Refusal } from '@/shared/api/client'
import LengthInput from '@/shared/form/LengthInput.vue'
import { useOutbox } from '@/shared/offline/outbox'
import { useForm } from '@/shared/offline/typed'

import type { LogRow } from './api'

/** A note, or what was learned: new, or put right. What is being typed stays in this browser until it is kept. */
const props = defineProps<{ kind: 'note' | 'learned'; project: string; today: string; of?: LogRow }>()
const emit = defineEmits<{ done: [] }>()
const { tried } = useOutbox()
const { typed, hand } = useForm(`log ${props.of?.id ?? props.kind} ${props.project}`, () => ({
  text: props.of?.text ?? '',
  day: props.of?.day ?? props.today,
}))
const problems = ref<Record<string, string>>({})
const form = ref<HTMLElement>()
onMounted(() => form.value?.querySelector('textarea')?.focus())
const label = computed(() => (props.kind === 'note' ? 'What to note' : 'What was learned'))

async function keep() {
  problems.value = {}
  const was = { text: props.of?.text ?? '', day: props.of?.day ?? '' }
  const now = { ...typed }
  const fields = (['text', 'day'] as const).filter((f) => now[f] !== was[f])
  const from = (v: typeof was) => Object.fromEntries(fields.map((f) => [f, v[f]]))
  try {
    await hand(() =>
      tried({
        kind: 'put_entry',
        entry: props.of?.id ?? crypto.randomUUID(),
        ...(props.project ? { project: props.project } : {}),
        changes: props.of ? from(now) : { kind: props.kind, ...now },
        seen: props.of ? from(was) : {},
      }),
    )
    emit('done')
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    problems.value = Object.fromEntries(error.problem.errors.map((e) => [e.field || 'text', e.message]))
    if (!error.problem.errors.length) problems.value = { text: error.message }
  }
}
</script>

<template>
  <form ref="form" @submit.prevent="keep">
    <NInput
      v-model:value="typed.text"
      type="textarea"
      :autosize="{ minRows: 3, maxRows: 12 }"
      :input-props="{ 'aria-label': label }"
      :status="problems.text ? 'error' : undefined"
    />
    <p v-if="problems.text" class="serious" role="alert">{{ problems.text }}</p>
    <LengthInput v-model="typed.day" label="Day" words :problem="problems.day" @enter="keep" />
    <div class="acts">
      <NButton type="primary" attr-type="submit">Keep it</NButton>
      <NButton @click="emit('done')">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 10px;
  margin-top: 8px;
}

.field {
  max-width: 200px;
}

.acts {
  display: flex;
  gap: 14px;
}
</style>
