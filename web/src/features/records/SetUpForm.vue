<script setup lang="ts">
import { NButton } from 'naive-ui'
import { ref } from 'vue'

import { Refusal } from '@/shared/api/client'
import Choice from '@/shared/form/Choice.vue'
import { useFocusWhenFresh } from '@/shared/form/fresh'
import LengthInput from '@/shared/form/LengthInput.vue'
import TickBox from '@/shared/form/TickBox.vue'
import { useOutbox } from '@/shared/offline/outbox'
import { useForm } from '@/shared/offline/typed'

import type { SetUp } from './api'

/** A machine as it is set up: new (``fresh``), perhaps from the one before it, or put right. */
const props = defineProps<{ of?: SetUp; fresh: boolean; leave: boolean }>()
const emit = defineEmits<{ done: [] }>()
const { tried } = useOutbox()
const words = {
  machine: 'Machine',
  foot: 'Foot',
  plate: 'Needle plate',
  needle: 'Needle',
  thread: 'Thread',
  stitch_length: 'Stitch length',
  needle_position: 'Needle position',
} as const
const was = {
  ...(Object.fromEntries(
    Object.keys(words).map((f) => [f, props.of?.[f as keyof typeof words] ?? '']),
  ) as Record<keyof typeof words, string>),
  guide: props.of?.guide?.text ?? '',
  guide_step: props.of?.guide_step.text ?? '',
  pressing: props.of?.pressing ?? 'side',
  starch: props.of?.starch ?? false,
  note: props.of?.note ?? '',
}
const { typed, clear, hand } = useForm(`set-up ${props.fresh ? 'new' : props.of!.id}`, () => ({ ...was }))
const problems = ref<Record<string, string>>({})
const key = props.fresh ? crypto.randomUUID() : props.of!.id
const pressings = [
  { value: 'side', label: 'To one side' },
  { value: 'open', label: 'Open' },
]

/** Opened on purpose: one types at once, wherever on the page it opened. */
const form = ref<HTMLElement>()
useFocusWhenFresh(form, () => props.leave)

function giveUp() {
  clear()
  emit('done')
}

async function keep() {
  problems.value = {}
  const fields = Object.keys(was) as (keyof typeof was)[]
  const changed = fields.filter((f) => typed[f] !== was[f] || (f === 'machine' && !props.of))
  const changes = Object.fromEntries(changed.map((f) => [f, typed[f]]))
  const seen = props.fresh ? {} : Object.fromEntries(changed.map((f) => [f, was[f]]))
  const came_from = props.fresh && props.of ? { came_from: props.of.id } : {}
  try {
    await hand(() => tried({ kind: 'put_set_up', set_up: key, ...came_from, changes, seen }))
    emit('done')
  } catch (error) {
    if (!(error instanceof Refusal)) return
    problems.value = Object.fromEntries(error.problem.errors.map((e) => [e.field || 'machine', e.message]))
  }
}
</script>

<template>
  <form ref="form" @submit.prevent="keep">
    <LengthInput
      v-for="(title, f) in words"
      :key="f"
      v-model="typed[f]"
      :label="title"
      words
      :problem="problems[f]"
    />
    <LengthInput v-model="typed.guide" label="Guide stands at" :problem="problems.guide" />
    <LengthInput v-model="typed.guide_step" label="Guide moves by" :problem="problems.guide_step" />
    <Choice v-model="typed.pressing" label="Seams are pressed" :options="pressings" />
    <TickBox v-model="typed.starch">cloth is starched</TickBox>
    <LengthInput v-model="typed.note" class="wide" label="Note" words :problem="problems.note" />
    <div class="acts wide">
      <NButton type="primary" attr-type="submit">{{
        !of ? 'Keep the machine' : fresh ? 'Begin this set-up' : 'Keep'
      }}</NButton>
      <NButton v-if="leave" @click="giveUp">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px 14px;
  align-items: start;
  margin-top: 10px;
}

.wide {
  grid-column: 1 / -1;
}

.acts {
  display: flex;
  gap: 14px;
}

@media (width <= 480px) {
  form {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
