<script setup lang="ts">
import { NButton, NTable } from 'naive-ui'
import { ref } from 'vue'

import { Refusal } from '@/shared/api/client'
import LengthInput from '@/shared/form/LengthInput.vue'
import PastedLines from '@/shared/form/PastedLines.vue'
import LabelledSelect from '@/shared/form/LabelledSelect.vue'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'
import { useForm } from '@/shared/offline/typed'
import { spots } from '@/shared/words/spots'
import { plural } from '@/shared/words/words'

import { type SeamTest, type SetUp, takeTests } from './api'
import { dayWords } from '@/shared/words/days'

/** What was read of seams sewn with this set-up: strip tests, and raw edge to stitching on the back. */
const props = defineProps<{ setUp: SetUp; today: string }>()
const { send, tried } = useOutbox()
const undo = useUndo()
const { typed, clear } = useForm(
  `seam test ${props.setUp.id}`,
  () => ({ stitch: '', spot: 'middle' as SeamTest['spot'], day: props.today }),
  'spot',
  'day',
)
const problem = ref('')
const spotWords = Object.fromEntries(spots.map((s) => [s.value, s.label]))

async function take() {
  const { stitch: value, spot, day } = typed
  problem.value = ''
  clear()
  try {
    const changes = { kind: 'stitch' as const, value, spot, day }
    const edit = { changes, seen: {} } as { changes: object; seen: object }
    await tried({ kind: 'put_test', set_up: props.setUp.id, test: crypto.randomUUID(), ...edit })
  } catch (error) {
    if (!(error instanceof Refusal)) return
    typed.stitch ||= value
    problem.value = error.problem.errors[0]?.message ?? error.message
  }
}

function remove(t: SeamTest) {
  send({ kind: 'delete_test', set_up: props.setUp.id, test: t.id })
  undo('The test was deleted.', () => send({ kind: 'restore_test', set_up: props.setUp.id, test: t.id }))
}

const pasting = ref(false)
</script>

<template>
  <section class="sheet" aria-label="Seam tests">
    <h2>Seam tests</h2>
    <p class="soft">
      {{ plural(setUp.tested, 'test') }} with this set-up. Seams read in projects count beside them.
    </p>
    <form @submit.prevent="take">
      <LengthInput v-model="typed.stitch" label="Raw edge to stitching" :problem="problem" @enter="take" />
      <LabelledSelect v-model="typed.spot" label="Where along the seam" :options="spots" />
      <LengthInput v-model="typed.day" label="Day" words />
      <NButton attr-type="submit">Take it down</NButton>
    </form>
    <NTable v-if="setUp.tests.length" size="small" :bordered="false">
      <thead>
        <tr>
          <th scope="col">Day</th>
          <th scope="col">Read</th>
          <th scope="col">Seam takes</th>
          <th scope="col">Guide</th>
          <th scope="col"><span class="visually-hidden">Take away</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="t in setUp.tests" :key="t.id">
          <td>{{ dayWords(t.day) }}</td>
          <td>
            <template v-if="t.whole">{{ t.value.pretty }} of {{ t.whole.pretty }}</template>
            <template v-else>{{ t.value.pretty }} {{ spotWords[t.spot] }}</template>
            <span v-if="t.note" class="soft"> {{ t.note }}</span>
          </td>
          <td class="number">{{ t.takes }}</td>
          <td>{{ t.guide?.pretty }}</td>
          <td>
            <NButton
              text
              :aria-label="`Delete the test of ${dayWords(t.day)}, ${t.value.pretty}`"
              @click="remove(t)"
              >Delete</NButton
            >
          </td>
        </tr>
      </tbody>
    </NTable>
    <p v-if="setUp.tested > setUp.tests.length" class="soft">
      The newest {{ setUp.tests.length }} are shown; all of them are in the sheet.
    </p>
    <p class="acts">
      <a href="/api/records/tests.csv" download>All tests as a sheet</a>
      <NButton text class="quiet" :aria-expanded="pasting" @click="pasting = !pasting"
        >Take in a sheet</NButton
      >
    </p>
    <PastedLines
      v-if="pasting"
      columns="One test a line: day, machine, kind, guide, cut, middle, whole, stitching, spot, note. A first line may name the columns in another order."
      kept="seam tests"
      :take="takeTests"
      :behind="['records', 'hands']"
    />
  </section>
</template>

<style scoped>
section {
  overflow-x: auto;
}

form {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px 14px;
  align-items: end;
  margin: 10px 0 14px;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 22px;
  align-items: center;
  margin-top: 10px;
}
</style>
