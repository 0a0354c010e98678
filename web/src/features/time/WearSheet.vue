<script setup lang="ts">
import { NButton } from 'naive-ui'

import type { Schemas } from '@/shared/api/client'
import LengthInput from '@/shared/form/LengthInput.vue'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'
import { useWorkroom } from '@/shared/offline/useWorkroom'

/** Needle and blade: after how much use a fresh one is due. The maker's word goes before. */
const props = defineProps<{ times: Schemas['TimeSheet'] }>()
const { send } = useOutbox()
const undo = useUndo()
const { data, typed, dirty, problems, keep } = useWorkroom('needle_hours', 'blade_cuts')

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
    <!-- Not before it is known what is there: what is typed is kept as a change of that. -->
    <form v-if="data" @submit.prevent="keep">
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
