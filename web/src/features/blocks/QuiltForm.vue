<script setup lang="ts">
import TickBox from '@/shared/form/TickBox.vue'
import LabelledSelect from '@/shared/form/LabelledSelect.vue'
import { computed, watch } from 'vue'

import type { Project, Schemas } from '@/shared/api/client'
import { useFields } from '@/shared/offline/fields'
import { useOutbox } from '@/shared/offline/outbox'
import Choice from '@/shared/form/Choice.vue'
import LengthInput from '@/shared/form/LengthInput.vue'

import type { Sheet } from './api'
import BorderRows from './BorderRows.vue'
import ByHandPanel from './ByHandPanel.vue'
import FabricSelect from './FabricSelect.vue'

/** How the quilt is put together; every field is saved as it is typed, and refused beside itself. */
const props = defineProps<{ project: Project; sheet: Sheet; quilt: Schemas['QuiltView'] }>()
const { typedIn } = useOutbox()
type Field = keyof ReturnType<typeof keptFields>

const lyings = [
  { value: 'upright', label: 'as it is' },
  { value: 'quarter', label: 'turned a quarter' },
  { value: 'half', label: 'turned half round' },
  { value: 'mirrored', label: 'mirrored' },
]
const backings = [
  { value: 'least', label: 'whole lengths, whichever way takes less' },
  { value: 'along', label: 'seams up and down' },
  { value: 'across', label: 'seams across' },
  { value: 'strip', label: 'one length and a strip' },
]
const blocks = computed(() => props.sheet.blocks.filter((b) => !b.part))
const inRows = computed(() => draft.setting !== 'by_hand')
const lengths = [
  'sash',
  'binding_strip',
  'backing_over',
  'usable',
  'oversize',
  'sleeve',
  'backing_repeat',
  'backing_repeat_across',
] as const
const keptFields = () => ({
  columns: String(props.quilt.columns),
  rows: String(props.quilt.rows),
  setting: props.quilt.setting as string,
  spread: props.quilt.spread as string,
  every_second: props.quilt.every_second as string,
  ...(Object.fromEntries(lengths.map((f) => [f, props.quilt[f].text])) as Record<
    (typeof lengths)[number],
    string
  >),
  stagger: props.quilt.stagger,
  half_blocks: props.quilt.half_blocks,
  backing_way: props.quilt.backing_way as string,
  sash_round: props.quilt.sash_round,
  cornerstones: props.quilt.cornerstones,
  sash_fabric: props.quilt.sash_fabric,
  cornerstone_fabric: props.quilt.cornerstone_fabric,
  setting_fabric: props.quilt.setting_fabric,
  binding_fabric: props.quilt.binding_fabric,
  backing_fabric: props.quilt.backing_fabric,
  borders: JSON.stringify(props.quilt.borders),
})
const flat = (c: Record<string, unknown>) =>
  'borders' in c ? { ...c, borders: JSON.stringify(c.borders) } : c
const sent = (c: Record<string, unknown>) =>
  'borders' in c ? { ...c, borders: JSON.parse(c.borders as string) } : c
const {
  typed: draft,
  problems,
  save,
} = useFields(keptFields, { thing: () => `quilt ${props.project.id}`, flat }, ({ changes, seen }) =>
  typedIn({ kind: 'change_quilt', project: props.project.id, changes: sent(changes), seen: sent(seen) }),
)

/** Handed over as it is typed, each by itself: what is kept in this browser is never behind what stands in the field. */
watch(
  () => ({ ...draft }),
  (now, was) => {
    for (const f of Object.keys(now) as Field[]) if (now[f] !== was[f]) void save(f)
  },
)
</script>

<template>
  <div class="sheet form">
    <Choice
      v-model="draft.setting"
      label="Blocks set"
      :options="[
        { value: 'straight', label: 'straight' },
        { value: 'on_point', label: 'on point' },
        { value: 'staggered', label: 'staggered' },
        { value: 'by_hand', label: 'by hand' },
      ]"
    />
    <p v-if="problems.setting" class="serious" role="alert">{{ problems.setting }}</p>
    <ByHandPanel :project="project" :sheet="sheet" :by-hand="!inRows" />
    <div v-if="inRows" class="two">
      <LengthInput v-model="draft.columns" label="Blocks across" numeric :problem="problems.columns" />
      <LengthInput v-model="draft.rows" label="Blocks down" numeric :problem="problems.rows" />
    </div>
    <Choice
      v-if="inRows"
      v-model="draft.spread"
      label="Several blocks or colourways"
      :options="[
        { value: 'chequered', label: 'by turns' },
        { value: 'in_order', label: 'in their order' },
        { value: 'set_in', label: 'the first, others set in' },
      ]"
    />
    <LabelledSelect v-if="inRows" v-model="draft.every_second" label="Every second block" :options="lyings" />
    <template v-if="draft.setting === 'staggered'">
      <LengthInput
        v-model="draft.stagger"
        label="Every second column lower by"
        :problem="problems.stagger"
        hint="a part of the block"
      />
      <TickBox v-model="draft.half_blocks">parts of blocks at the ends</TickBox>
      <p v-if="problems.half_blocks" class="serious" role="alert">{{ problems.half_blocks }}</p>
    </template>
    <FabricSelect
      v-if="draft.setting === 'on_point' || (draft.setting === 'staggered' && !draft.half_blocks)"
      v-model="draft.setting_fabric"
      :label="draft.setting === 'on_point' ? 'Setting triangles from' : 'Fillers from'"
      :project="project"
    />
    <hr v-if="inRows" class="basted" />
    <div v-if="inRows" class="two">
      <LengthInput v-model="draft.sash" label="Sashing finishes" :problem="problems.sash" />
      <FabricSelect v-model="draft.sash_fabric" label="Sashing from" :project="project" />
    </div>
    <TickBox v-if="draft.setting === 'straight'" v-model="draft.sash_round">
      outside the outer blocks too
    </TickBox>
    <TickBox v-if="inRows" v-model="draft.cornerstones">cornerstones</TickBox>
    <FabricSelect
      v-if="inRows && draft.cornerstones"
      v-model="draft.cornerstone_fabric"
      label="Cornerstones from"
      :project="project"
    />
    <hr class="basted" />
    <BorderRows v-model="draft.borders" :project="project" :blocks="blocks" :problem="problems.borders" />
    <hr class="basted" />
    <div class="two">
      <LengthInput
        v-model="draft.binding_strip"
        label="Binding strip, cut"
        :problem="problems.binding_strip"
      />
      <FabricSelect v-model="draft.binding_fabric" label="Binding from" :project="project" />
      <LengthInput
        v-model="draft.backing_over"
        label="Backing over, each side"
        :problem="problems.backing_over"
      />
      <FabricSelect v-model="draft.backing_fabric" label="Backing from" :project="project" />
      <LengthInput v-model="draft.usable" label="Usable width of cloth" :problem="problems.usable" />
      <LengthInput
        v-model="draft.oversize"
        label="Oversize, to trim off"
        :problem="problems.oversize"
        hint="borders and setting triangles"
      />
      <LengthInput
        v-model="draft.sleeve"
        label="Hanging sleeve finishes"
        :problem="problems.sleeve"
        hint="0 for none"
      />
    </div>
    <LabelledSelect v-model="draft.backing_way" label="Backing joined with" :options="backings" />
    <div class="two">
      <LengthInput
        v-model="draft.backing_repeat"
        label="Backing’s print repeats every"
        :problem="problems.backing_repeat"
        hint="along the selvedge; 0 where it need not meet at the seams"
      />
      <LengthInput
        v-model="draft.backing_repeat_across"
        label="and across the cloth every"
        :problem="problems.backing_repeat_across"
        hint="0 where it need not meet"
      />
    </div>
  </div>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}

.basted {
  margin: 2px 0;
  width: 100%;
}

.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
}
</style>
