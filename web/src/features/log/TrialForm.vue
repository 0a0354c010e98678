<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed, ref, watch } from 'vue'

import { useProject } from '@/features/projects'
import { Refusal } from '@/shared/api/client'
import LengthInput from '@/shared/form/LengthInput.vue'
import LabelledSelect from '@/shared/form/LabelledSelect.vue'
import { useOutbox } from '@/shared/offline/outbox'
import { useForm } from '@/shared/offline/typed'
import { kindWords } from '@/shared/words/words'

import { useTrial } from './api'

/** One unit made to try the sizes: what its pieces were cut to, and what it came to before it was trimmed. */
const props = defineProps<{ projects: { id: string; name: string }[]; project: string; unit: string }>()
const emit = defineEmits<{ done: [] }>()
const { tried } = useOutbox()
const project = ref(props.project || props.projects[0]?.id || '')
const unit = ref(props.unit)
const { data: of } = useProject(project)
const { data: asked, error } = useTrial(unit)
const names = computed(() => props.projects.map((p) => ({ value: p.id, label: p.name })))
const units = computed(() =>
  (of.value?.units ?? []).map((u) => ({
    value: u.id,
    label: `${kindWords[u.kind]?.name ?? u.kind} finishing ${u.finished.text}`,
  })),
)
watch(
  units,
  (all) => {
    if (of.value?.id === project.value && !all.some((u) => u.value === unit.value))
      unit.value = all[0]?.value ?? ''
  },
  { immediate: true },
)
const cuts = ref<Record<string, string>>({})
watch(
  asked,
  (now) => (cuts.value = Object.fromEntries((now?.sizes ?? []).map((s) => [s.name, s.planned.text]))),
  { immediate: true },
)
const { typed, hand } = useForm(`trial ${props.project} ${props.unit}`, () => ({
  width: '',
  height: '',
  text: '',
}))
const problems = ref<Record<string, string>>({})

async function keep() {
  problems.value = {}
  const { width, height, text } = typed
  const measured = { width, ...(asked.value?.square ? {} : { height }) }
  try {
    await hand(() =>
      tried({
        kind: 'put_entry',
        entry: crypto.randomUUID(),
        unit: unit.value,
        changes: { kind: 'trial', cuts: cuts.value, text, ...measured },
        seen: {},
      }),
    )
    emit('done')
  } catch (refusal) {
    if (!(refusal instanceof Refusal)) throw refusal
    const found = refusal.problem.errors.map((e) => [e.field || 'width', e.message])
    problems.value = found.length ? Object.fromEntries(found) : { width: refusal.message }
  }
}
</script>

<template>
  <form @submit.prevent="keep">
    <LabelledSelect v-model="project" label="Project" :options="names" />
    <LabelledSelect v-model="unit" label="Unit" :options="units" />
    <p v-if="error" class="serious wide" role="alert">{{ error.message }}</p>
    <template v-if="asked">
      <LengthInput
        v-for="s in asked.sizes"
        :key="s.name"
        v-model="cuts[s.name]!"
        :label="`Cut: ${s.title}`"
        :problem="problems.cuts"
        :hint="`planned ${s.planned.pretty}`"
        @enter="keep"
      />
      <LengthInput
        v-model="typed.width"
        :label="asked.square ? 'Came to, before trimming' : 'Came to, wide'"
        :problem="problems.width"
        :hint="`should be ${asked.width.pretty}`"
        @enter="keep"
      />
      <LengthInput
        v-if="!asked.square"
        v-model="typed.height"
        label="Came to, high"
        :problem="problems.height"
        :hint="`should be ${asked.height.pretty}`"
        @enter="keep"
      />
      <LengthInput v-model="typed.text" class="wide" label="Note" words @enter="keep" />
    </template>
    <div class="acts wide">
      <NButton type="primary" attr-type="submit" :disabled="!asked">Keep the trial</NButton>
      <NButton @click="emit('done')">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 210px), 1fr));
  gap: 10px 14px;
  margin-top: 8px;
  align-items: start;
}

.wide {
  grid-column: 1 / -1;
}

.acts {
  display: flex;
  gap: 14px;
}
</style>
