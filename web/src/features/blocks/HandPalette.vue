<script setup lang="ts">
import { computed, ref } from 'vue'

import { useKinds } from '@/features/projects'
import { kindWords } from '@/shared/lib/words'
import UnitPicture from '@/shared/ui/UnitPicture.vue'

import { type SavedBlock, useLibrary } from './api'
import LibraryDialog from './LibraryDialog.vue'
import type { InHand } from './useBoard'

/** What one has in hand while laying out: every kind of unit, a smaller block, or nothing. */
const props = defineProps<{ colours: Record<string, string>; blocks: SavedBlock[] }>()
const hand = defineModel<InHand>({ required: true })
const { data: kinds } = useKinds()
const { data: library } = useLibrary()
const choosing = ref(false)

const held = computed(() => String(hand.value?.content.kind ?? hand.value?.content.block ?? ''))
const holdsBlock = computed(() => !!hand.value && 'block' in hand.value.content)

function take(kind: string) {
  hand.value = kind ? { content: { kind }, name: kindWords[kind]?.name ?? kind } : null
}

function takeBlock(key: string) {
  const name =
    library.value?.find((b) => b.key === key)?.name ?? props.blocks.find((b) => b.id === key)?.view.name
  hand.value = { content: { block: key }, name: name ?? 'Block' }
}
</script>

<template>
  <fieldset class="palette">
    <legend>In hand</legend>
    <label class="tile bare" :class="{ on: !held }">
      <input type="radio" name="in-hand" :checked="!held" @change="take('')" />
      <span class="nothing" aria-hidden="true" />
      Nothing
    </label>
    <label v-for="k in kinds ?? []" :key="k.name" class="tile" :class="{ on: held === k.name }">
      <input type="radio" name="in-hand" :checked="held === k.name" @change="take(k.name)" />
      <UnitPicture :drawing="{ ...k.picture, alt: '' }" :colours="colours" :size="32" />
      <span>{{ kindWords[k.name]?.name }}</span>
    </label>
    <button type="button" class="tile" :class="{ on: holdsBlock }" @click="choosing = true">
      <span class="four" aria-hidden="true" />
      <span>{{ holdsBlock ? hand!.name : 'A smaller block…' }}</span>
    </button>
    <LibraryDialog
      v-model:show="choosing"
      title="Which block to lay inside"
      :colours="colours"
      :blocks="blocks"
      @choose="takeBlock"
    />
  </fieldset>
</template>

<style scoped>
.palette {
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
  display: grid;
  gap: 2px;
}

legend {
  font-weight: 600;
  padding: 0;
  margin-bottom: 4px;
}

.tile {
  position: relative;
  display: grid;
  grid-template-columns: 32px minmax(0, 1fr);
  gap: 10px;
  align-items: center;
  min-height: 38px;
  padding: 2px 6px;
  font: inherit;
  line-height: 1.1;
  text-align: left;
  color: var(--ink);
  background: none;
  border: 1px solid transparent;
  border-radius: 3px;
  cursor: pointer;
}

.tile:hover {
  border-color: var(--steel-line);
}

.tile.on {
  background: var(--oilskin);
}

.tile:has(:focus-visible) {
  outline: 3px solid var(--petrol);
}

input {
  position: absolute;
  inset: 0;
  margin: 0;
  opacity: 0;
  cursor: pointer;
}

.nothing {
  width: 32px;
  height: 32px;
  border: 2px dashed var(--steel-line);
}

.four {
  width: 32px;
  height: 32px;
  border: 1px solid var(--ink);
  background: conic-gradient(#fff 25%, var(--steel-line) 0 50%, #fff 0 75%, var(--steel-line) 0);
}

@media (width <= 1000px) {
  .palette {
    grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  }
}
</style>
