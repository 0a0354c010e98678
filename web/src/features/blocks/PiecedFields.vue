<script setup lang="ts">
import { computed } from 'vue'

import { useKinds } from '@/features/projects'
import type { Project, Schemas } from '@/shared/api/client'
import { fabricOptions } from '@/shared/form/fabrics'
import LabelledSelect from '@/shared/form/LabelledSelect.vue'
import { kindWords } from '@/shared/words/words'

import type { SavedBlock } from './api'

type Pieced = Schemas['PiecedWire']
type Content = Schemas['ContentWire']

/** What a border is pieced of: one or two units by turns, how they lie and run, and what turns the corner. */
const props = defineProps<{ project: Project; blocks: SavedBlock[]; border: number }>()
const row = defineModel<Pieced>({ required: true })
const { data: kinds } = useKinds()

const units = computed(() => [
  ...(kinds.value ?? []).map((k) => ({ value: `kind:${k.name}`, label: kindWords[k.name]?.name ?? k.name })),
  ...props.blocks.map((b) => ({ value: `block:${b.id}`, label: `${b.view.name}, a block` })),
])
const corners = computed(() => [{ value: '', label: 'a plain square' }, ...units.value])

const contentKey = (c?: Content | null) => (!c ? '' : c.kind ? `kind:${c.kind}` : `block:${c.block}`)
function content(value: string): Content | null {
  if (!value) return null
  const [of, key] = [value.slice(0, value.indexOf(':')), value.slice(value.indexOf(':') + 1)]
  if (of === 'block') return { block: key, fabrics: {} }
  return { kind: key, fabrics: kinds.value?.find((k) => k.name === key)?.usual ?? 'ab' }
}
const change = (some: Partial<Pieced>) => (row.value = { ...row.value, ...some })
const first = computed(() => row.value.units[0] ?? {})
const second = computed(() => row.value.units[1])

function unit(n: number, value: string) {
  const held = content(value)
  const now = [...row.value.units]
  if (held) now[n] = held
  else now.splice(n, 1)
  change({ units: now })
}

const parts = (c: Content) => kinds.value?.find((k) => k.name === c.kind)?.parts ?? []
const letters = (c: Content) => (typeof c.fabrics === 'string' ? c.fabrics : '')
function dye(which: 'unit' | 'second' | 'corner', part: number, role: string) {
  const of = which === 'corner' ? row.value.corner! : row.value.units[which === 'unit' ? 0 : 1]!
  const fabrics = [...letters(of)].map((l, n) => (n === part ? role : l)).join('')
  if (which === 'corner') change({ corner: { ...of, fabrics } })
  else
    change({
      units: row.value.units.map((u, n) => (n === (which === 'unit' ? 0 : 1) ? { ...u, fabrics } : u)),
    })
}
const dyed = computed(() =>
  (
    [
      ['unit', first.value, ''],
      ['second', second.value, 'second '],
      ['corner', row.value.corner, 'corner '],
    ] as const
  ).flatMap(([which, c, before]) =>
    c?.kind
      ? parts(c).map((part, n) => ({
          which,
          n,
          label: `${before}${part}`,
          role: letters(c)[n] ?? 'a',
          key: `${which}${n}`,
        }))
      : [],
  ),
)

const turns = [
  { value: 0, label: 'as it is drawn' },
  { value: 1, label: 'turned a quarter' },
  { value: 2, label: 'turned half round' },
  { value: 3, label: 'turned three quarters' },
]
const fits = [
  { value: 'spacer', label: 'a plain strip inside it' },
  { value: 'adapt', label: 'another size of unit' },
]
const runs = [
  { value: 'round', label: 'one way round' },
  { value: 'mirrored', label: 'from the middle outward' },
]
const of = (what: string) => `${what} of border ${props.border}`
</script>

<template>
  <div class="pieced">
    <LabelledSelect
      label="Pieced of"
      :model-value="contentKey(first)"
      :named="of('Unit')"
      :options="units"
      @update:model-value="unit(0, $event)"
    />
    <LabelledSelect
      label="and, by turns"
      :model-value="contentKey(second)"
      :named="of('Second unit')"
      :options="[{ value: '', label: 'nothing else' }, ...units]"
      @update:model-value="unit(1, $event)"
    />
    <LabelledSelect
      label="Along the top it lies"
      :model-value="row.turn ?? 0"
      :named="of('How the unit lies')"
      :options="turns"
      @update:model-value="change({ turn: $event })"
    />
    <LabelledSelect
      label="The row runs"
      :model-value="row.runs ?? 'round'"
      :named="of('How the row runs')"
      :options="runs"
      @update:model-value="change({ runs: $event as 'round' })"
    />
    <LabelledSelect
      label="To fit, there is"
      :model-value="row.fit ?? 'spacer'"
      :named="of('What makes it fit')"
      :options="fits"
      @update:model-value="change({ fit: $event as 'spacer' })"
    />
    <LabelledSelect
      label="The corner is"
      :model-value="contentKey(row.corner)"
      :named="of('What turns the corner')"
      :options="corners"
      @update:model-value="change({ corner: content($event) })"
    />
    <LabelledSelect
      v-if="row.corner"
      label="At the upper left it lies"
      :model-value="row.corner_turn ?? 0"
      :named="of('How the corner lies')"
      :options="turns"
      @update:model-value="change({ corner_turn: $event })"
    />
    <LabelledSelect
      v-for="d in dyed"
      :key="d.key"
      :label="d.label"
      :model-value="d.role"
      :named="of(`Fabric of ${d.label}`)"
      :options="fabricOptions(project, d.role)"
      @update:model-value="dye(d.which, d.n, $event)"
    />
  </div>
</template>

<style scoped>
.pieced {
  display: grid;
  grid-column: 1 / -1;
  grid-template-columns: 1fr 1fr;
  gap: 8px 12px;
  padding-left: 10px;
  border-left: 3px solid var(--steel-line);
}
</style>
