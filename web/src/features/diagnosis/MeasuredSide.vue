<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Schemas } from '@/shared/api/client'
import RowInput from '@/shared/form/RowInput.vue'
import { useWaiting } from '@/shared/offline/outbox'
import { changes } from '@/shared/offline/queue'

import { useOneLength } from './useOneLength'

/** One finished block, one way: a reading of its own, taken away where nothing is typed. */
const props = defineProps<{
  project: string
  block: string
  nth: number
  way: 'width' | 'height'
  one: Schemas['MeasuredOne']
  labelled: string
}>()
const emit = defineEmits<{ refused: [said: string] }>()
const kinds = { width: 'block_width', height: 'block_height' } as const
/** The name of the next reading here: one that was taken away is not made again under its own. */
const fresh = ref<string>(crypto.randomUUID())

const waiting = useWaiting()
const gone = (reading: string) =>
  waiting.value.some((o) => o.kind === 'delete_measured' && o.reading === reading)
const kept = computed(() => {
  const reading = props.one[`${props.way}_reading`]
  return reading && !gone(reading) ? { reading, text: props.one[props.way]?.text ?? '' } : undefined
})
/** Made here, also before the page was read again, and not with the server yet. */
const made = computed(() =>
  changes.value
    .map((c) => c.what)
    .filter((o) => o.kind === 'put_measured')
    .find(
      (o) =>
        o.block === props.block &&
        o.changes.kind === kinds[props.way] &&
        o.changes.nth === String(props.nth) &&
        !gone(o.reading),
    ),
)
const reading = computed(() => kept.value?.reading ?? made.value?.reading ?? fresh.value)

const { typed, problem, save } = useOneLength(
  () => kept.value?.text ?? '',
  { thing: () => `reading ${reading.value}`, flat: ({ value }) => ({ value }), place: ['kind', 'nth'] },
  ({ changes: now, seen }) => {
    const ids = { project: props.project, block: props.block, reading: reading.value }
    if (!now.value) {
      fresh.value = crypto.randomUUID()
      return { kind: 'delete_measured', ...ids }
    }
    if (kept.value) return { kind: 'put_measured', ...ids, changes: now, seen }
    const place = { kind: kinds[props.way], nth: String(props.nth) }
    return { kind: 'put_measured', ...ids, changes: { ...place, ...now }, seen: {} }
  },
)
watch(problem, (said) => emit('refused', said))
</script>

<template>
  <RowInput v-model="typed.value" length :wrong="problem !== ''" :labelled="labelled" @keep="save" />
</template>
