<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed, watch } from 'vue'
import { RouterLink } from 'vue-router'

import LengthInput from '@/shared/form/LengthInput.vue'
import LabelledSelect from '@/shared/form/LabelledSelect.vue'
import { useFields } from '@/shared/offline/fields'
import { useOutbox } from '@/shared/offline/outbox'
import { onLeaving } from '@/shared/offline/typed'

import type { ProjectTime } from './api'

/** One project that is planned: how long the rest takes, by when it has to be done, and whether it will be. */
const props = defineProps<{ time: ProjectTime }>()
const emit = defineEmits<{ leave: [] }>()
const { typedIn } = useOutbox()
const rhythms: { value: ProjectTime['rhythm']; label: string }[] = [
  { value: 'none', label: 'no day' },
  { value: 'day', label: 'all of it by a day' },
  { value: 'block_week', label: 'a block each week, the first by' },
  { value: 'block_month', label: 'a block each month, the first by' },
  { value: 'stage_week', label: 'a stage each week, as a group sets it, the first by' },
]
const none = (of: Record<string, unknown>) =>
  Object.fromEntries(Object.entries(of).map(([f, v]) => [f, v || null]))
const { typed, problems, save } = useFields(
  () => ({ rhythm: props.time.rhythm as string, first: props.time.first ?? '' }),
  { thing: () => `schedule ${props.time.project}` },
  ({ changes, seen }) =>
    typedIn({
      kind: 'change_schedule',
      project: props.time.project,
      changes: none(changes),
      seen: none(seen),
    }),
)
const dated = computed(() => typed.rhythm !== 'none')
const keep = () => void ((!dated.value || typed.first) && save('rhythm', 'first'))
watch(() => typed.rhythm, keep)
onLeaving(keep)
</script>

<template>
  <section class="sheet" :aria-label="time.name">
    <h2>
      <RouterLink :to="{ name: 'standing', params: { project: time.project } }">{{ time.name }}</RouterLink>
    </h2>
    <p class="said">{{ time.said }}</p>
    <div class="due">
      <LabelledSelect v-model="typed.rhythm" label="Has to be done" :options="rhythms" />
      <LengthInput
        v-if="dated"
        v-model="typed.first"
        label="Day"
        words
        placeholder="2027-03-28"
        :problem="problems.first"
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
