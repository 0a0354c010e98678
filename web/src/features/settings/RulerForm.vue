<script setup lang="ts">
import { NButton, NCheckbox } from 'naive-ui'
import { ref } from 'vue'

import { Refusal, type Schemas } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'
import { useForm } from '@/shared/offline/typed'
import { useFocusWhenFresh } from '@/shared/form/fresh'
import LengthInput from '@/shared/form/LengthInput.vue'

/** A ruler added, or one changed; a refusal stands under its field and nothing typed is lost. */
const props = defineProps<{ id: string; ruler?: Schemas['Ruler'] }>()
const emit = defineEmits<{ done: [] }>()
const { tried } = useOutbox()
const was = {
  name: props.ruler?.name ?? '',
  width: props.ruler?.width.text ?? '',
  height: props.ruler?.height.text ?? '',
  border: props.ruler?.border.text ?? '0',
  corner_diagonal: props.ruler?.corner_diagonal ?? true,
  slotted: props.ruler?.slotted ?? false,
  grooved: props.ruler?.grooved ?? false,
  goose: props.ruler?.goose ?? false,
}
const { typed, clear, hand } = useForm(`ruler ${props.ruler ? props.id : 'new'}`, () => ({ ...was }))
const problems = ref<Record<string, string>>({})

const form = ref<HTMLElement>()
useFocusWhenFresh(form, () => true)

function leave() {
  clear()
  emit('done')
}

async function keep() {
  problems.value = {}
  const changes = { ...typed }
  try {
    const seen = props.ruler ? { ...was } : {}
    await hand(() => tried({ kind: 'put_ruler', ruler: props.id, changes, seen }))
    emit('done')
  } catch (error) {
    if (!(error instanceof Refusal)) return
    problems.value = Object.fromEntries(error.problem.errors.map((e) => [e.field || 'name', e.message]))
  }
}
</script>

<template>
  <form ref="form" @submit.prevent="keep">
    <LengthInput v-model="typed.name" label="Name of the ruler" words :problem="problems.name" />
    <LengthInput v-model="typed.width" label="Wide" :problem="problems.width" />
    <LengthInput v-model="typed.height" label="High" :problem="problems.height" />
    <LengthInput
      v-model="typed.border"
      label="Before its first mark"
      :problem="problems.border"
      hint="0, or 1/2 on some"
    />
    <div class="ticks">
      <NCheckbox v-model:checked="typed.corner_diagonal">45-degree line into the corner</NCheckbox>
      <NCheckbox v-model:checked="typed.slotted">Slotted, for trimming before pressing</NCheckbox>
      <NCheckbox v-model:checked="typed.grooved">Grooved to sit on the seam</NCheckbox>
      <NCheckbox v-model:checked="typed.goose">Made for flying geese</NCheckbox>
    </div>
    <div class="acts">
      <NButton type="primary" attr-type="submit">Keep the ruler</NButton>
      <NButton @click="leave">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 2fr 1fr 1fr 1fr;
  gap: 10px 14px;
  width: 100%;
}

.ticks,
.acts {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 22px;
}

@media (width <= 620px) {
  form {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
