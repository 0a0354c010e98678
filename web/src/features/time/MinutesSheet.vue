<script setup lang="ts">
import { NButton, NTable } from 'naive-ui'
import { computed, ref } from 'vue'

import { Refusal, type Schemas } from '@/shared/api/client'
import LengthInput from '@/shared/form/LengthInput.vue'
import PastedLines from '@/shared/form/PastedLines.vue'
import LabelledSelect from '@/shared/form/LabelledSelect.vue'
import { useOutbox } from '@/shared/offline/outbox'
import { useForm } from '@/shared/offline/typed'
import { plural } from '@/shared/words/words'

import { takeTimes, type WorkStage, type WorkTime } from './api'
import { dayWords } from '@/shared/words/days'

/** Minutes put down by the clock or by hand; any of them can be put right or taken away. */
const props = defineProps<{ times: Schemas['TimeSheet'] }>()
const emit = defineEmits<{ remove: [string] }>()
const { tried } = useOutbox()
const choices = computed(() => props.times.projects.map((p) => ({ value: p.id, label: p.name })))
const stages = computed(() => props.times.stages.map((s) => ({ value: s.stage, label: s.title })))

const { typed, hand } = useForm(
  'minutes',
  () => ({
    project: '',
    stage: 'sew' as WorkStage,
    minutes: '',
    count: '',
    day: props.times.today,
    note: '',
  }),
  'project',
  'stage',
)
/** The first one, until another is chosen, or when that is gone. */
const project = computed({
  get: () => (choices.value.find((c) => c.value === typed.project) ?? choices.value[0])?.value ?? '',
  set: (id) => (typed.project = id),
})
const problems = ref<Record<string, string>>({})

/** Said of the field it is about; what was typed stays. */
function refuse(error: unknown) {
  if (!(error instanceof Refusal)) throw error
  problems.value = Object.fromEntries(error.problem.errors.map((e) => [e.field || 'minutes', e.message]))
}

async function take() {
  problems.value = {}
  const { stage, minutes, count, day, note } = typed
  try {
    await hand(() =>
      tried({
        kind: 'put_time',
        time: crypto.randomUUID(),
        project: project.value,
        changes: { stage, minutes, count: count || null, day, note },
        seen: {},
      }),
    )
  } catch (error) {
    refuse(error)
  }
}

const editing = ref('')
const corrected = ref({ minutes: '', count: '' })
function edit(row: WorkTime) {
  editing.value = row.id
  corrected.value = { minutes: row.minutes, count: String(row.count ?? '') }
}
async function correct(row: WorkTime) {
  const was = { minutes: row.minutes, count: String(row.count ?? '') }
  const fields = (['minutes', 'count'] as const).filter((f) => corrected.value[f] !== was[f])
  const of = (from: typeof was) => Object.fromEntries(fields.map((f) => [f, from[f] || null]))
  problems.value = {}
  if (!fields.length) return (editing.value = '')
  try {
    await tried({ kind: 'put_time', time: row.id, changes: of(corrected.value), seen: of(was) })
    editing.value = ''
  } catch (error) {
    refuse(error)
  }
}

const pasting = ref(false)
</script>

<template>
  <section class="sheet" aria-label="Minutes put down">
    <h2>Put down</h2>
    <p class="soft">
      The clock is begun on Cut, Sew, Press, Trim, Join and at the bench; it counts by itself what you put
      down meanwhile. Or type what you know.
    </p>
    <p v-if="!times.projects.length">Begin a project first: minutes belong to one.</p>
    <form v-else class="typed" @submit.prevent="take">
      <LabelledSelect v-model="project" label="Project" :options="choices" />
      <LabelledSelect v-model="typed.stage" label="Stage" :options="stages" />
      <LengthInput v-model="typed.minutes" label="Minutes" words :problem="problems.minutes" @enter="take" />
      <LengthInput
        v-model="typed.count"
        label="How many were done"
        numeric
        :problem="problems.count"
        @enter="take"
      />
      <LengthInput v-model="typed.day" label="Day" words :problem="problems.day" @enter="take" />
      <LengthInput v-model="typed.note" label="Note" words :problem="problems.note" @enter="take" />
      <NButton type="primary" attr-type="submit">Put them down</NButton>
    </form>
    <NTable v-if="times.rows.length" size="small" :bordered="false">
      <thead>
        <tr>
          <th scope="col">Day</th>
          <th scope="col">Project</th>
          <th scope="col">Stage</th>
          <th scope="col">Time</th>
          <th scope="col">Done</th>
          <th scope="col">Note</th>
          <th scope="col"><span class="visually-hidden">Put right or take away</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in times.rows" :key="r.id">
          <td>{{ dayWords(r.day) }}</td>
          <td>{{ r.project_name }}</td>
          <td>{{ r.stage_said }}</td>
          <template v-if="editing === r.id">
            <td>
              <LengthInput
                v-model="corrected.minutes"
                label="Minutes"
                words
                :problem="problems.minutes"
                @enter="correct(r)"
              />
            </td>
            <td>
              <LengthInput
                v-model="corrected.count"
                label="How many"
                numeric
                :problem="problems.count"
                @enter="correct(r)"
              />
            </td>
          </template>
          <template v-else>
            <td>{{ r.told || 'How long was it? Put it right, and it counts.' }}</td>
            <td>
              {{ r.count ?? '' }} <span class="soft">{{ r.of }}</span>
            </td>
          </template>
          <td>{{ r.note }}</td>
          <td>
            <span class="acts">
              <NButton v-if="editing === r.id" text @click="correct(r)">Keep</NButton>
              <NButton
                v-else
                text
                :aria-label="`Put right: ${r.stage_said}, ${dayWords(r.day)}`"
                @click="edit(r)"
                >Put right</NButton
              >
              <NButton
                text
                :aria-label="`Take away: ${r.stage_said}, ${dayWords(r.day)}`"
                @click="emit('remove', r.id)"
                >Take away</NButton
              ></span
            >
          </td>
        </tr>
      </tbody>
    </NTable>
    <p v-if="times.count > times.rows.length" class="soft">
      The newest {{ times.rows.length }} are shown of {{ times.count }}; all of them are in the sheet.
    </p>
    <p v-else-if="times.count" class="soft">{{ plural(times.count, 'stretch', 'stretches') }} of work.</p>
    <p class="acts">
      <a href="/api/times/minutes.csv" download>All minutes as a sheet</a>
      <NButton text class="quiet" :aria-expanded="pasting" @click="pasting = !pasting"
        >Take in a sheet</NButton
      >
    </p>
    <PastedLines
      v-if="pasting"
      columns="One stretch of work a line: day, project, stage, minutes, count, note."
      kept="minutes"
      :take="takeTimes"
      :behind="['times', 'evenings', 'project-time']"
    />
  </section>
</template>

<style scoped>
section {
  overflow-x: auto;
}

.typed {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 10px 14px;
  align-items: end;
  margin: 10px 0 14px;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}
</style>
