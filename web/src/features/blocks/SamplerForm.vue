<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed } from 'vue'

import type { Project } from '@/shared/api/client'
import LengthInput from '@/shared/form/LengthInput.vue'
import { useForm } from '@/shared/offline/typed'

import { laySampler, type Sheet } from './api'
import FabricSelect from './FabricSelect.vue'
import { useLaidAnew } from './useLaidAnew'

/** A sampler of blocks of several sizes, laid by rule. */
const props = defineProps<{ project: Project; sheet: Sheet }>()
const emit = defineEmits<{ done: [] }>()
const blocks = computed(() => props.sheet.blocks.filter((b) => !b.part))
const wantedOf = (id: string) => {
  const b = blocks.value.find((x) => x.id === id)
  return String(b?.colourways.reduce((n, w) => n + w.count, 0) || 1)
}
const { quilt } = props.sheet
const { typed: asked, clear } = useForm(`sampler ${props.project.id}`, () => ({
  width: quilt.sizes?.centre_width.text ?? '40',
  gap: '1',
  fabric: quilt.setting_fabric,
  numbers: {} as Record<string, string>,
}))
const { lay, working, problems } = useLaidAnew(
  () => props.project.id,
  () => props.sheet,
  ['width', 'gap'],
)

async function go() {
  const numbers = Object.fromEntries(blocks.value.map((b) => [b.id, asked.numbers[b.id] ?? wantedOf(b.id)]))
  const ask = () => laySampler(props.project.id, { ...asked, numbers })
  if (await lay(ask, 'The sampler is laid. Go on from it by hand.')) leave()
}

function leave() {
  clear()
  emit('done')
}
</script>

<template>
  <form class="laid-by-rule" aria-label="A sampler" @submit.prevent="go">
    <strong>A sampler of blocks of several sizes</strong>
    <p class="soft">
      The highest lie first; strips between and beside them are worked out. What was laid by hand gives way to
      it.
    </p>
    <LengthInput
      v-for="b in blocks"
      :key="b.id"
      numeric
      :model-value="asked.numbers[b.id] ?? wantedOf(b.id)"
      :label="`${b.view.name}, ${b.finished.pretty}`"
      @update:model-value="asked.numbers[b.id] = $event"
    />
    <div class="two">
      <LengthInput v-model="asked.width" label="Rows finish" :problem="problems.width" />
      <LengthInput v-model="asked.gap" label="Strip between" :problem="problems.gap" />
    </div>
    <FabricSelect v-model="asked.fabric" label="Strips from" :project="project" />
    <p v-if="problems.other" class="serious" role="alert">{{ problems.other }}</p>
    <div class="acts">
      <NButton type="primary" attr-type="submit" :loading="working">Lay the sampler</NButton>
      <NButton text class="quiet" @click="leave">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped src="./by-rule.css"></style>
