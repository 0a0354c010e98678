<script setup lang="ts">
import { reactive, ref, watch } from 'vue'

import { Refusal, type Schemas } from '@/shared/api/client'
import RowInput from '@/shared/form/RowInput.vue'
import { useOutbox } from '@/shared/offline/outbox'

/** One finished block, across and down; each is a reading of its own, kept when one leaves the field. */
const props = defineProps<{
  project: string
  block: string
  name: string
  one: Schemas['MeasuredOne']
  said?: string
}>()
const { send, tried } = useOutbox()
const kinds = { width: 'block_width', height: 'block_height' } as const
type Way = keyof typeof kinds
const known = (way: Way) => props.one[way]?.text ?? ''
const typed = reactive({ width: known('width'), height: known('height') })
/** What was sent last, so that Enter and leaving the field are one act. */
const sent: Record<Way, string | undefined> = { width: undefined, height: undefined }
const problem = ref<{ way: Way; said: string }>()
for (const way of ['width', 'height'] as const)
  watch(
    () => known(way),
    (now, before) => {
      sent[way] = undefined
      if (typed[way] === before || !typed[way]) typed[way] = now
    },
  )

async function keep(way: Way) {
  const now = typed[way].trim()
  if (now === (sent[way] ?? known(way))) return
  sent[way] = now
  const ids = { project: props.project, block: props.block }
  const reading = props.one[`${way}_reading`]
  if (problem.value?.way === way) problem.value = undefined
  if (!now) {
    if (reading) send({ kind: 'delete_measured', ...ids, reading })
    return
  }
  const value = { value: now }
  try {
    await tried(
      reading
        ? { kind: 'put_measured', ...ids, reading, changes: value, seen: { value: known(way) } }
        : {
            kind: 'put_measured',
            ...ids,
            reading: crypto.randomUUID(),
            changes: { kind: kinds[way], nth: String(props.one.number), ...value },
            seen: {},
          },
    )
  } catch (error) {
    sent[way] = undefined
    if (!(error instanceof Refusal)) throw error
    problem.value = { way, said: error.problem.errors[0]?.message ?? error.message }
  }
}
</script>

<template>
  <tr>
    <th scope="row">{{ one.number }}</th>
    <td v-for="way in ['width', 'height'] as const" :key="way">
      <RowInput
        v-model="typed[way]"
        length
        :wrong="problem?.way === way"
        :labelled="`${name} ${one.number}, ${way === 'width' ? 'across' : 'down'}`"
        @keep="keep(way)"
      />
    </td>
    <td>
      <span v-if="problem" class="serious" role="alert">{{ problem.said }}</span>
      <span v-else>{{ said }}</span>
    </td>
  </tr>
</template>
