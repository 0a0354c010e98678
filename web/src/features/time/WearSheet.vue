<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { NButton } from 'naive-ui'
import { ref } from 'vue'

import { api, Refusal, type Schemas, taken } from '@/shared/api/client'
import LengthInput from '@/shared/form/LengthInput.vue'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'
import { editOf, onLeaving, useTyped } from '@/shared/offline/typed'

/** Needle and blade: after how much use a fresh one is due. The maker's word goes before. */
const props = defineProps<{ times: Schemas['TimeSheet'] }>()
const { data } = useQuery({ queryKey: ['workroom'], queryFn: () => taken(api.GET('/api/workroom')) })
const { send, tried } = useOutbox()
const undo = useUndo()
const problems = ref<Record<string, string>>({})
const { typed, base, dirty } = useTyped(
  () => ({
    needle_hours: String(data.value?.needle_hours ?? ''),
    blade_cuts: String(data.value?.blade_cuts ?? ''),
  }),
  { thing: () => 'workroom' },
)

async function keep() {
  const changed = dirty()
  problems.value = {}
  if (!data.value || !changed.length) return
  try {
    await tried({ kind: 'change_workroom', ...editOf(changed, typed, base.value) })
  } catch (error) {
    if (!(error instanceof Refusal)) return
    problems.value = Object.fromEntries(error.problem.errors.map((e) => [e.field, e.message]))
  }
}
onLeaving(() => void keep())

function fresh() {
  const told = { blade: crypto.randomUUID(), on: props.times.today }
  send({ kind: 'put_blade', ...told })
  undo('A fresh blade is put down for today.', () => send({ kind: 'delete_blade', ...told }))
}
</script>

<template>
  <section class="sheet" aria-label="Needle and blade">
    <h2>Needle and blade</h2>
    <ul v-if="times.reminders.length" role="status">
      <li v-for="r in times.reminders" :key="r">{{ r }}</li>
    </ul>
    <p v-else class="soft">Nothing is due.</p>
    <form @submit.prevent="keep">
      <LengthInput
        v-model="typed.needle_hours"
        label="A fresh needle after hours of sewing"
        numeric
        :problem="problems.needle_hours"
        @enter="keep"
      />
      <LengthInput
        v-model="typed.blade_cuts"
        label="A fresh blade after cuts"
        numeric
        :problem="problems.blade_cuts"
        @enter="keep"
      />
      <NButton v-if="dirty().length" attr-type="submit">Keep</NButton>
    </form>
    <p class="soft">
      Empty: nothing is said. What the makers of needle and blade say goes before; a dull or nicked one is
      changed at once. Close the blade whenever it is put down.
    </p>
    <p>
      <NButton size="small" @click="fresh">A fresh blade is in</NButton>
      <span v-if="times.blade" class="soft"> The last one on {{ times.blade }}.</span>
    </p>
    <p class="soft">A fresh needle is a change of the machine: put it down under Machine and seam.</p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
}

form {
  display: grid;
  gap: 10px;
}

ul {
  margin: 0;
  padding-left: 20px;
}
</style>
