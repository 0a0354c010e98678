<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'

import { type Project, Refusal, ServerAway } from '@/shared/api/client'
import FileButton from '@/shared/form/FileButton.vue'
import UnitPicture from '@/shared/drawing/UnitPicture.vue'

import { type SavedBlock, type Sheet, takeBlock } from './api'
import LibraryDialog from './LibraryDialog.vue'
import { useBlocks } from './useBlocks'

/** The blocks of a project and what is made of them; where one is lies on yellow. */
const props = defineProps<{
  project: Project
  sheet: Sheet
  block?: SavedBlock
  colours: Record<string, string>
}>()
const { begin, copy, remove } = useBlocks(() => props.project.id)
const route = useRoute()
const router = useRouter()
const client = useQueryClient()
const problem = ref('')

/** A block that was saved as a file, of this project or any other. */
async function takeIn(file: File) {
  const key = crypto.randomUUID()
  try {
    if (file.size > 900_000) throw new SyntaxError('too large')
    await takeBlock(props.project.id, key, JSON.parse(await file.text()))
    problem.value = ''
    for (const rest of ['blocks', 'project', 'counts', 'standing'])
      await client.invalidateQueries({ queryKey: [rest] })
    await router.push({ name: 'lay', params: { project: props.project.id, block: key } })
  } catch (error) {
    if (error instanceof Refusal || error instanceof ServerAway) problem.value = error.message
    else if (error instanceof SyntaxError)
      problem.value = 'This file is no block: a block is written as JSON, and is smaller than 900 kB.'
    else throw error
  }
}
const choosing = ref(false)

/** Laying out and joining are two stages of the work, each with its own views of a block. */
const joining = computed(() => ['join', 'joins', 'press-block', 'join-quilt'].includes(String(route.name)))
const views = computed(() => (joining.value ? ofJoining : ofLaying))
const view = computed(() =>
  views.value.some((v) => v.name === route.name) ? route.name! : joining.value ? 'join' : 'lay',
)
/** Strips of borders and parts of blocks are made by the quilt: there is nothing to lay of them, but to join. */
const shown = computed(() =>
  props.sheet.blocks.filter((b) => joining.value || !b.part || b.part === 'centre'),
)
const of = (b: SavedBlock) => b.colourways.reduce((n, w) => n + w.count, 0)
const quilt = computed(() => {
  const s = props.sheet.quilt.sizes
  return s ? `finishing ${s.width.pretty} × ${s.height.pretty}` : ''
})
const whole = computed(() =>
  joining.value ? [{ name: 'join-quilt', title: 'The quilt', line: quilt.value }] : ofLayingWhole.value,
)
const ofLayingWhole = computed(() => [
  { name: 'counts', title: 'Counts', line: '' },
  { name: 'quilt', title: 'Quilt', line: quilt.value },
  { name: 'scraps', title: 'Scraps', line: '' },
])
const ofLaying = [
  { name: 'lay', title: 'Lay out' },
  { name: 'look', title: 'Look it over' },
  { name: 'what-if', title: 'What if' },
  { name: 'measure-block', title: 'Measure' },
  { name: 'diagnose-block', title: 'Diagnose' },
]
const ofJoining = [
  { name: 'join', title: 'Join' },
  { name: 'press-block', title: 'Pressing map' },
]
</script>

<template>
  <div class="rail">
    <nav aria-label="Blocks of this project" class="held">
      <RouterLink
        v-for="b in shown"
        :key="b.id"
        :to="{ name: view, params: { project: project.id, block: b.id } }"
        :class="{ here: b.id === block?.id }"
        :aria-current="b.id === block?.id ? 'true' : undefined"
      >
        <UnitPicture :drawing="{ ...b.view.picture, alt: '' }" :colours="colours" :size="34" />
        <span>
          <strong>{{ b.view.name }}</strong>
          {{ of(b) }} finishing {{ b.finished.pretty }}
        </span>
      </RouterLink>
      <RouterLink
        v-for="w in whole"
        :key="w.name"
        class="whole"
        :to="{ name: w.name, params: { project: project.id } }"
        :class="{ here: route.name === w.name }"
        :aria-current="route.name === w.name ? 'page' : undefined"
        ><span
          ><strong>{{ w.title }}</strong
          >{{ w.line }}</span
        ></RouterLink
      >
    </nav>
    <div class="acts">
      <NButton size="small" color="#f0b429" text-color="#10242b" @click="choosing = true"
        >Add a block</NButton
      >
      <template v-if="block && !block.part">
        <NButton text class="quiet" @click="copy(block)">Copy this one</NButton>
        <NButton
          v-if="!joining"
          text
          class="quiet"
          tag="a"
          :href="`/api/blocks/${block.id}/export`"
          download="block.json"
          >Save as a file</NButton
        >
        <NButton text class="quiet" @click="remove(block)">Remove it</NButton>
      </template>
      <FileButton v-if="!joining" accept=".json,application/json" @file="takeIn">From a file</FileButton>
    </div>
    <p v-if="problem" class="sheet" role="alert">{{ problem }}</p>
    <nav v-if="block" class="views" :aria-label="`What to do with ${block.view.name}`">
      <RouterLink
        v-for="v in views"
        :key="v.name"
        :to="{ name: v.name, params: { project: project.id, block: block.id } }"
        >{{ v.title }}</RouterLink
      >
    </nav>
    <LibraryDialog
      v-model:show="choosing"
      title="Which arrangement to begin with"
      :colours="colours"
      :blocks="[]"
      empty
      @choose="begin($event)"
    />
  </div>
</template>

<style scoped>
.acts {
  flex-wrap: wrap;
  min-width: 0;
}

.acts :deep(.opens .n-button) {
  --n-text-color: var(--chalk) !important;
  --n-border: 1px solid var(--steel-line) !important;
}

.held a.whole {
  padding: 5px 14px;
  background: none;
  color: var(--chalk);
  border: 1px solid var(--steel-line);
}

.held a.whole.here {
  background: var(--oilskin);
  color: var(--ink);
}

.views {
  width: 100%;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 24px;
}

.views a {
  color: var(--chalk);
  text-decoration: none;
  padding: 2px 0;
  border-bottom: 3px solid transparent;
}

.views a.router-link-active {
  border-bottom-color: var(--oilskin);
  font-weight: 600;
}
</style>
