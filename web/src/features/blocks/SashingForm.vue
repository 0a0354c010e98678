<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed } from 'vue'

import type { Project, Schemas } from '@/shared/api/client'
import Choice from '@/shared/form/Choice.vue'
import LengthInput from '@/shared/form/LengthInput.vue'
import TickBox from '@/shared/form/TickBox.vue'
import { useForm } from '@/shared/offline/typed'

import { laySashing, type Sheet } from './api'
import FabricSelect from './FabricSelect.vue'
import SashStrips from './SashStrips.vue'
import { useLaidAnew } from './useLaidAnew'

/** Blocks in straight rows with sashes of several strips, laid by rule. */
const props = defineProps<{ project: Project; sheet: Sheet }>()
const emit = defineEmits<{ done: [] }>()
const quilt = props.sheet.quilt
const other = props.project.fabrics.find((f) => f.role !== quilt.sash_fabric)?.role ?? quilt.sash_fabric
const firstStrips = () => [
  { width: '1/2', fabric: quilt.sash_fabric },
  { width: '1', fabric: other },
  { width: '1/2', fabric: quilt.sash_fabric },
]
const { typed: asked, clear } = useForm(`sashing ${props.project.id}`, () => ({
  columns: String(quilt.columns),
  rows: String(quilt.rows),
  across: firstStrips(),
  down: firstStrips(),
  same: true,
  crossing: 'chequered' as Schemas['SashingRequest']['crossing'],
  cornerstone: quilt.cornerstone_fabric,
  outside: quilt.sash_round,
}))
const between = computed(() => (asked.same ? asked.across : asked.down))
const crosses = computed(() => asked.across.length > 0 && between.value.length > 0)
const { lay, working, problems } = useLaidAnew(
  () => props.project.id,
  () => props.sheet,
  ['columns', 'rows', 'across', 'down'],
)

async function go() {
  const { columns, rows, across, crossing, cornerstone, outside } = asked
  const body = { columns, rows, across, down: between.value, crossing, cornerstone, outside }
  if (await lay(() => laySashing(props.project.id, body), 'The sashing is laid. Go on from it by hand.'))
    leave()
}

function leave() {
  clear()
  emit('done')
}
</script>

<template>
  <form class="laid-by-rule" aria-label="Sashing of several strips" @submit.prevent="go">
    <strong>Sashing of several strips</strong>
    <p class="soft">
      Blocks in straight rows, with strips as they follow one another. What was laid by hand gives way to it.
    </p>
    <div class="two">
      <LengthInput v-model="asked.columns" label="Blocks across" numeric :problem="problems.columns" />
      <LengthInput v-model="asked.rows" label="Blocks down" numeric :problem="problems.rows" />
    </div>
    <SashStrips
      v-model="asked.across"
      where="Between columns"
      :project="project"
      :problem="problems.across"
    />
    <TickBox v-model="asked.same">the same between rows</TickBox>
    <SashStrips
      v-if="!asked.same"
      v-model="asked.down"
      where="Between rows"
      :project="project"
      :problem="problems.down"
    />
    <Choice
      v-if="crosses"
      v-model="asked.crossing"
      label="Where they cross"
      :options="[
        { value: 'chequered', label: 'patches by turns' },
        { value: 'plain', label: 'one cornerstone' },
        { value: 'run', label: 'those between rows run through' },
      ]"
    />
    <FabricSelect
      v-if="crosses && asked.crossing === 'plain'"
      v-model="asked.cornerstone"
      label="One cornerstone from"
      :project="project"
    />
    <TickBox v-model="asked.outside">outside the outer blocks too</TickBox>
    <p v-if="problems.other" class="serious" role="alert">{{ problems.other }}</p>
    <div class="acts">
      <NButton type="primary" attr-type="submit" :loading="working">Lay the sashing</NButton>
      <NButton text class="quiet" @click="leave">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped src="./by-rule.css"></style>
