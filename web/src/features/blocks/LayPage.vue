<script setup lang="ts">
import { NButton, NInput, useMessage } from 'naive-ui'
import { computed, toRef, watch } from 'vue'

import type { Project } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'
import { useForm } from '@/shared/offline/typed'

import { type SavedBlock, type Sheet } from './api'
import BoardActs from './BoardActs.vue'
import ColourwaysPanel from './ColourwaysPanel.vue'
import GridBoard from './GridBoard.vue'
import HandPalette from './HandPalette.vue'
import PlacePanel from './PlacePanel.vue'
import SizesPanel from './SizesPanel.vue'
import { useBoard } from './useBoard'
import { useLayout } from './useLayout'
import WholeActs from './WholeActs.vue'

/** A block laid out place by place; the core draws and sizes it as the hands move. */
const props = defineProps<{
  project: Project
  sheet: Sheet
  block: SavedBlock
  colours: Record<string, string>
}>()
const { view, finished, problems, insisted, change, undo, redo, canUndo, canRedo } = useLayout(
  () => props.project.id,
  () => props.block,
)
const board = useBoard(view, change, undo, redo)
const { cursor, here, chosen, hand, kept, go, add, key, act, move, lay } = board
const { sent } = useOutbox()
const message = useMessage()
const others = computed(() => props.sheet.blocks.filter((b) => b.id !== props.block.id && !b.part))
// The name typed stands here until the core has it, through a reload too; one given in another window takes its place.
const { typed, clear } = useForm(`name of block ${props.block.id}`, () => ({ name: view.value.name }))
const name = toRef(typed, 'name')
watch(() => view.value.name, clear)

async function keepThis() {
  await sent({ kind: 'keep_own', library: crypto.randomUUID(), block: props.block.id })
  message.success(`${view.value.name} is in your library, for every project.`)
}

const renameBlock = () =>
  name.value.trim() && name.value !== view.value.name && change({ do: 'rename', name: name.value })
</script>

<template>
  <main id="main" class="lay">
    <h2 class="visually-hidden">Lay out {{ view.name }}</h2>
    <div class="sheet hand">
      <HandPalette v-model="hand" :colours="colours" :blocks="others" />
    </div>
    <div class="middle">
      <BoardActs :board="board" :can-undo="canUndo" :can-redo="canRedo" @undo="undo" @redo="redo" />
      <GridBoard
        :view="view"
        :colours="colours"
        :cursor="cursor"
        :chosen="chosen"
        :width="470"
        @go="go"
        @add="add"
        @lay="lay"
        @move="move"
        @stretch="(from, across, down) => change({ do: 'stretch', from, across, down })"
        @key="key"
      />
      <WholeActs
        @symmetry="
          change({ do: 'symmetry', symmetry: $event, spots: chosen.length > 1 ? board.spots.value : [] })
        "
        @whole="change({ do: $event })"
      />
      <p v-if="kept" class="on-mat">
        Copied from row {{ kept[1] + 1 }}, column {{ kept[0] + 1 }}. V lays it in every place chosen.
      </p>
    </div>
    <div class="side">
      <section class="sheet named">
        <span aria-hidden="true">Name</span>
        <NInput
          v-model:value="name"
          :maxlength="80"
          :input-props="{ 'aria-label': 'Name' }"
          @change="renameBlock"
        />
        <NButton v-if="!block.part" size="small" @click="keepThis">Keep in my library</NButton>
      </section>
      <div v-if="problems.layout" class="sheet problem">
        <p role="alert">{{ problems.layout }}</p>
        <NButton v-if="insisted.unit_bent" size="small" @click="change(insisted.unit_bent)">
          Bend it all the same
        </NButton>
      </div>
      <p v-if="view.cannot" class="sheet notice" role="status">{{ view.cannot.message }}</p>
      <PlacePanel
        v-if="here"
        :spot="here"
        :chosen="chosen.length"
        :project="project"
        :roles="view.roles"
        @paint="(part, role) => act('paint', { part, role })"
        @shape="act('shape', $event)"
        @span="(across, down) => change({ do: 'span', from: [here!.column, here!.row], across, down })"
      />
      <SizesPanel
        v-model:finished="finished"
        :view="view"
        :of="block.id"
        :problems="problems"
        :grows="!!insisted.tracks_do_not_add_up"
        :centre="block.part === 'centre'"
        @tracks="(columns, rows) => change({ do: 'tracks', columns, rows })"
        @grow="insisted.tracks_do_not_add_up && change(insisted.tracks_do_not_add_up)"
        @grid="(columns, rows) => change({ do: 'grid', columns, rows })"
      />
    </div>
    <ColourwaysPanel v-if="!block.part" class="wide" :project="project" :block="block" :roles="view.roles" />
  </main>
</template>

<style scoped>
.lay {
  display: grid;
  grid-template-columns: 214px minmax(0, 1fr) 384px;
  gap: 14px;
  align-items: start;
}

.hand {
  padding: 10px;
}

.middle,
.side {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
}

.wide {
  grid-column: 1 / -1;
}

.named {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 10px 14px;
}

.named :deep(.n-input) {
  flex: 1;
  min-width: 0;
}

.problem {
  border-left: 6px solid var(--buoy);
  padding: 10px 14px;
}

.notice {
  border-left: 6px solid var(--oilskin);
  padding: 10px 14px;
}

.on-mat {
  color: var(--chalk);
}

@media (width <= 1180px) {
  .lay {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
