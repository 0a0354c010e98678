<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { NButton } from 'naive-ui'
import { computed, reactive, ref } from 'vue'
import { RouterLink } from 'vue-router'

import { type Project, Refusal, ServerAway } from '@/shared/api/client'
import LengthInput from '@/shared/form/LengthInput.vue'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'

import { laySampler, type SavedBlock, type Sheet } from './api'
import FabricSelect from './FabricSelect.vue'

/** A centre laid by hand: where it is laid, and how it is laid anew as a sampler of blocks of several sizes. */
const props = defineProps<{ project: Project; sheet: Sheet; byHand: boolean }>()
const client = useQueryClient()
const { sent } = useOutbox()
const undo = useUndo()
const centre = computed(() => props.sheet.blocks.find((b) => b.part === 'centre'))
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
const open = ref(false)
const working = ref(false)
const problems = ref<Record<string, string>>({})

async function lay() {
  const [before, was, counted] = [centre.value, props.sheet.quilt.setting, blocks.value]
  working.value = true
  try {
    const found = Object.fromEntries(blocks.value.map((b) => [b.id, Number(numbers[b.id] ?? wanted(b.id))]))
    const sheet = await laySampler(props.project.id, { ...asked, numbers: found })
    client.setQueryData(['blocks', props.project.id], sheet)
    for (const rest of ['project', 'counts', 'cutting', 'buying', 'standing'])
      void client.invalidateQueries({ queryKey: [rest] })
    problems.value = {}
    open.value = false
    undo('The sampler is laid. Go on from it by hand.', () => void back(before, was, counted))
  } catch (e) {
    if (!(e instanceof Refusal || e instanceof ServerAway)) throw e
    const field = e instanceof Refusal ? (e.problem.errors[0]?.field ?? '') : ''
    problems.value = { [['width', 'gap'].includes(field) ? field : 'other']: e.message }
  } finally {
    working.value = false
  }
}

/** What was laid before, or the setting there was with its numbers of blocks, one after the other: laid by hand they follow the centre. */
async function back(before: SavedBlock | undefined, was: Sheet['quilt']['setting'], counted: SavedBlock[]) {
  const project = props.project.id
  if (before) {
    const changes = { pattern: before.view.pattern, finished: before.finished.text }
    await sent({ kind: 'put_block', project, block: before.id, changes, seen: {} })
  }
  if (was === 'by_hand') return
  await sent({ kind: 'change_quilt', project, changes: { setting: was }, seen: {} })
  for (const b of counted)
    await sent({
      kind: 'put_block',
      project,
      block: b.id,
      changes: { colourways: b.colourways.map((w) => ({ ...w, count: String(w.count) })) },
      seen: {},
    })
}
</script>

<template>
  <div class="by-hand">
    <template v-if="byHand">
      <p>Blocks, strips and units lie where you put them; how many of each follows from there.</p>
      <RouterLink
        v-if="centre"
        v-slot="{ navigate, href }"
        custom
        :to="{ name: 'lay', params: { project: project.id, block: centre.id } }"
      >
        <NButton type="primary" tag="a" :href="href" @click="navigate">Lay it by hand</NButton>
      </RouterLink>
    </template>
    <NButton v-if="!open" text class="quiet" @click="open = true">Lay blocks of several sizes…</NButton>
    <form v-else class="sampler" @submit.prevent="lay">
      <strong>A sampler of blocks of several sizes</strong>
      <p class="soft">
        The highest lie first; strips between and beside them are worked out. What was laid by hand gives way
        to it.
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
        <NButton text class="quiet" @click="open = false">Leave it</NButton>
      </div>
    </form>
  </div>
</template>

<style scoped>
.by-hand,
.sampler {
  display: grid;
  gap: 10px;
  justify-items: start;
}

.sampler > :deep(*) {
  width: 100%;
}

.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}

.acts {
  display: flex;
  gap: 16px;
}
</style>
