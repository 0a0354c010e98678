<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useDebounceFn } from '@vueuse/core'
import { computed, reactive, ref, watch } from 'vue'

import { api, Refusal, type Schemas, taken } from '@/shared/api/client'
import { refused } from '@/shared/offline/conflicts'
import { useOutbox } from '@/shared/offline/outbox'
import Choice from '@/shared/form/Choice.vue'
import LengthInput from '@/shared/form/LengthInput.vue'

import RulersSheet from './RulersSheet.vue'

const fields = ['name', 'measure', 'seam_allowance', 'ruler_step', 'reading_step', 'cutter'] as const
type Field = (typeof fields)[number]

const { data } = useQuery({ queryKey: ['workroom'], queryFn: () => taken(api.GET('/api/workroom')) })
const { sent } = useOutbox()
const typed = reactive<Record<Field, string>>({
  name: '',
  measure: 'in',
  seam_allowance: '',
  ruler_step: '',
  reading_step: '',
  cutter: 'right',
})
const base = reactive({ ...typed })
const problems = ref<Record<string, string>>({})

const text = (room: Schemas['Workroom'], f: Field) => {
  const v = room[f]
  return typeof v === 'string' ? v : v.text
}
watch(
  data,
  (room) => {
    if (!room) return
    for (const f of fields) {
      const now = text(room, f)
      if (typed[f] === base[f]) typed[f] = now
      base[f] = now
    }
  },
  { immediate: true },
)

const save = useDebounceFn(async () => {
  const dirty = fields.filter((f) => typed[f] !== base[f])
  if (!dirty.length) return
  const changes = Object.fromEntries(dirty.map((f) => [f, typed[f]]))
  const seen = Object.fromEntries(dirty.map((f) => [f, base[f]]))
  problems.value = {}
  try {
    await sent({ kind: 'change_workroom', changes, seen })
  } catch (error) {
    if (!(error instanceof Refusal)) return
    const at = refused.findIndex((r) => r.outgoing.kind === 'change_workroom')
    if (at >= 0) refused.splice(at, 1)
    problems.value = Object.fromEntries(error.problem.errors.map((e) => [e.field, e.message]))
  }
}, 500)
watch(typed, () => void save())

const measures = [
  { value: 'in', label: 'Inches' },
  { value: 'mm', label: 'Millimetres' },
]
const hands = [
  { value: 'right', label: 'Right' },
  { value: 'left', label: 'Left' },
]
const around = (list: string[], now: string) =>
  (list.includes(now) || !now ? list : [...list, now]).map((s) => ({ value: s, label: s }))
const steps = computed(() =>
  around(typed.measure === 'mm' ? ['1 mm', '2 mm', '5 mm'] : ['1/16', '1/8', '1/4'], typed.ruler_step),
)
const marks = computed(() =>
  around(typed.measure === 'mm' ? ['0.5 mm', '1 mm'] : ['1/16', '1/32', '1/64'], typed.reading_step),
)
</script>

<template>
  <main id="main" class="page">
    <h1>Settings</h1>
    <section v-if="data" class="sheet form">
      <p class="soft">New projects start from these. Projects that exist keep their own.</p>
      <LengthInput v-model="typed.name" label="Name of the workroom" />
      <Choice v-model="typed.measure" label="Measure in" :options="measures" />
      <LengthInput v-model="typed.seam_allowance" label="Seam allowance" :problem="problems.seam_allowance" />
      <Choice v-model="typed.ruler_step" label="Cut sizes are rounded up to" :options="steps" />
      <Choice v-model="typed.reading_step" label="Readings are taken to the nearest" :options="marks" />
      <Choice v-model="typed.cutter" label="The hand that holds the blade" :options="hands" />
      <p v-for="(p, f) in problems" :key="f" class="serious" role="alert">{{ p }}</p>
    </section>
    <RulersSheet v-if="data" :rulers="data.rulers" />
  </main>
</template>

<style scoped>
.page {
  max-width: 860px;
  margin: 0 auto;
  padding: 28px 24px;
  display: grid;
  gap: 14px;
}

h1 {
  color: var(--chalk);
}

.form {
  display: grid;
  gap: 16px;
}
</style>
