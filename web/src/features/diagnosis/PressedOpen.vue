<script setup lang="ts">
import { NButton, NSelect } from 'naive-ui'
import { computed } from 'vue'

import { useOutbox } from '@/shared/offline/outbox'

import type { Diagnosis } from './api'

/** Which seams of a block were pressed open: their fold takes half of what it takes of one pressed to a side. */
const props = defineProps<{
  project: string
  block: string
  seams: Diagnosis['places']['seams']
  planned?: readonly string[]
}>()
const { send } = useOutbox()
const every = 'every seam'
const open = computed(() => props.seams.filter((s) => s.pressed_open).map((s) => s.name))
const shown = computed(() => (open.value.length === props.seams.length ? [every] : open.value))
/** Those that the pressing map has open, where it is known; by one act they are put down. */
const asPlanned = computed(() =>
  props.seams.filter((s) => props.planned?.includes(s.name)).map((s) => s.name),
)
const differs = computed(
  () => !!props.planned && [...asPlanned.value].sort().join() !== [...open.value].sort().join(),
)
const options = computed(() => [
  { value: every, label: 'Every seam' },
  ...props.seams.map((s) => ({ value: s.name, label: s.name })),
])

function choose(names: string[]) {
  const all = names.includes(every) && !shown.value.includes(every)
  const chosen = all ? props.seams.map((s) => s.name) : names.filter((n) => n !== every)
  const kept = shown.value.includes(every) && !all && !names.includes(every) ? [] : chosen
  send({
    kind: 'put_block',
    project: props.project,
    block: props.block,
    changes: { sewn_open: kept },
    seen: {},
  })
}
</script>

<template>
  <section class="sheet" aria-label="How seams were pressed">
    <label class="pair">
      <span>Seams pressed open <span class="soft">(all others: to a side)</span></span>
      <NSelect
        :value="shown"
        multiple
        filterable
        :options="options"
        placeholder="none"
        max-tag-count="responsive"
        :input-props="{ 'aria-label': 'Seams pressed open' }"
        @update:value="choose"
      />
    </label>
    <p v-if="differs" class="soft">
      The pressing map has {{ asPlanned.length ? asPlanned.join(', ') : 'none' }} open.
      <NButton size="small" @click="choose(asPlanned)">As the map has it</NButton>
    </p>
  </section>
</template>

<style scoped>
.pair {
  display: grid;
  gap: 1px;
}
</style>
