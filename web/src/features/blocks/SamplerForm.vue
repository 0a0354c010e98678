<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed, reactive } from 'vue'

import type { Project } from '@/shared/api/client'
import LengthInput from '@/shared/form/LengthInput.vue'

import { laySampler, type Sheet } from './api'
import FabricSelect from './FabricSelect.vue'
import { useLaidAnew } from './useLaidAnew'

/** A sampler of blocks of several sizes, laid by rule. */
const props = defineProps<{ project: Project; sheet: Sheet }>()
const emit = defineEmits<{ done: [] }>()
const blocks = computed(() => props.sheet.blocks.filter((b) => !b.part))
const wanted = (id: string) => {
  const b = blocks.value.find((x) => x.id === id)
  return String(b?.colourways.reduce((n, w) => n + w.count, 0) || 1)
}
const numbers = reactive<Record<string, string>>({})
const asked = reactive({
  width: props.sheet.quilt.sizes?.centre_width.text ?? '40',
  gap: '1',
  fabric: props.sheet.quilt.setting_fabric,
})
const { lay, working, problems } = useLaidAnew(
  () => props.project.id,
  () => props.sheet,
  ['width', 'gap'],
)

async function go() {
  const found = Object.fromEntries(blocks.value.map((b) => [b.id, numbers[b.id] ?? wanted(b.id)]))
  const ask = () => laySampler(props.project.id, { ...asked, numbers: found })
  if (await lay(ask, 'The sampler is laid. Go on from it by hand.')) emit('done')
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
      :model-value="numbers[b.id] ?? wanted(b.id)"
      :label="`${b.view.name}, ${b.finished.pretty}`"
      @update:model-value="numbers[b.id] = $event"
    />
    <div class="two">
      <LengthInput v-model="asked.width" label="Rows finish" :problem="problems.width" />
      <LengthInput v-model="asked.gap" label="Strip between" :problem="problems.gap" />
    </div>
    <FabricSelect v-model="asked.fabric" label="Strips from" :project="project" />
    <p v-if="problems.other" class="serious" role="alert">{{ problems.other }}</p>
    <div class="acts">
      <NButton type="primary" attr-type="submit" :loading="working">Lay the sampler</NButton>
      <NButton text class="quiet" @click="emit('done')">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped src="./by-rule.css"></style>
