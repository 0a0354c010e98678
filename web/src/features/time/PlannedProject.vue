<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'

import { Refusal } from '@/shared/api/client'
import LengthInput from '@/shared/form/LengthInput.vue'
import LabelledSelect from '@/shared/form/LabelledSelect.vue'
import { useOutbox } from '@/shared/offline/outbox'

import type { ProjectTime } from './api'

/** One project that is planned: how long the rest takes, by when it has to be done, and whether it will be. */
const props = defineProps<{ time: ProjectTime }>()
const emit = defineEmits<{ leave: [] }>()
const { tried } = useOutbox()
const rhythms: { value: ProjectTime['rhythm']; label: string }[] = [
  { value: 'none', label: 'no day' },
  { value: 'day', label: 'all of it by a day' },
  { value: 'block_week', label: 'a block each week, the first by' },
  { value: 'block_month', label: 'a block each month, the first by' },
  { value: 'stage_week', label: 'a stage each week, as a group sets it, the first by' },
]
const rhythm = ref(props.time.rhythm)
const first = ref(props.time.first ?? '')
const problem = ref('')
watch(
  () => [props.time.rhythm, props.time.first] as const,
  ([r, f]) => {
    rhythm.value = r
    first.value = f ?? ''
  },
)
const dated = computed(() => rhythm.value !== 'none')

async function keep() {
  problem.value = ''
  const was = { rhythm: props.time.rhythm, first: props.time.first ?? '' }
  const now = { rhythm: rhythm.value, first: first.value }
  const fields = (['rhythm', 'first'] as const).filter((f) => now[f] !== was[f])
  if (!fields.length || (dated.value && !first.value)) return
  const of = (from: typeof was) => Object.fromEntries(fields.map((f) => [f, from[f] || null]))
  try {
    await tried({ kind: 'change_schedule', project: props.time.project, changes: of(now), seen: of(was) })
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    problem.value = error.problem.errors[0]?.message ?? error.message
  }
}
watch(rhythm, (now, before) => now !== before && void keep())
</script>

<template>
  <section class="sheet" :aria-label="time.name">
    <h2>
      <RouterLink :to="{ name: 'standing', params: { project: time.project } }">{{ time.name }}</RouterLink>
    </h2>
    <p class="said">{{ time.said }}</p>
    <div class="due">
      <LabelledSelect v-model="rhythm" label="Has to be done" :options="rhythms" />
      <LengthInput
        v-if="dated"
        v-model="first"
        label="Day"
        words
        placeholder="2027-03-28"
        :problem="problem"
        @enter="keep"
        @focusout="keep"
      />
    </div>
    <ul v-if="time.lates.length">
      <li v-for="l in time.lates.slice(0, 6)" :key="l.due" :class="{ late: l.late }">
        <b v-if="l.late">Late. </b>{{ l.said }}
      </li>
    </ul>
    <NButton text class="quiet" :aria-label="`Do not plan ${time.name}`" @click="emit('leave')"
      >Do not plan it</NButton
    >
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  justify-items: start;
}

.said {
  font-weight: 600;
}

.due {
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr);
  gap: 10px 14px;
  width: 100%;
}

ul {
  margin: 0;
  padding-left: 20px;
}

.late {
  text-decoration: underline var(--buoy) 2px;
  text-underline-offset: 4px;
}
</style>
