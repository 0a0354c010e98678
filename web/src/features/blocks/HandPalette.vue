<script setup lang="ts">
import { NButton, NRadio, NRadioGroup } from 'naive-ui'
import { computed, ref } from 'vue'

import { useKinds } from '@/features/projects'
import { kindWords } from '@/shared/words/words'
import UnitPicture from '@/shared/drawing/UnitPicture.vue'

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
  <div class="palette">
    <strong id="in-hand">In hand</strong>
    <NRadioGroup
      :value="holdsBlock ? 'block' : held"
      name="in-hand"
      aria-labelledby="in-hand"
      @update:value="take"
    >
      <NRadio value="" class="tile" :class="{ on: !held }">
        <span class="nothing" aria-hidden="true" />
        Nothing
      </NRadio>
      <NRadio
        v-for="k in kinds ?? []"
        :key="k.name"
        :value="k.name"
        class="tile"
        :class="{ on: held === k.name }"
      >
        <UnitPicture :drawing="{ ...k.picture, alt: '' }" :colours="colours" :size="32" />
        <span>{{ kindWords[k.name]?.name }}</span>
      </NRadio>
    </NRadioGroup>
    <NButton text class="tile smaller" :class="{ on: holdsBlock }" @click="choosing = true">
      <span class="four" aria-hidden="true" />
      <span>{{ holdsBlock ? hand!.name : 'A smaller block…' }}</span>
    </NButton>
    <LibraryDialog
      v-model:show="choosing"
      title="Which block to lay inside"
      :colours="colours"
      :blocks="blocks"
      @choose="takeBlock"
    />
  </div>
</template>

<style scoped>
.palette,
.palette :deep(.n-radio-group) {
  display: grid;
  gap: 2px;
  min-width: 0;
}

.tile {
  display: block;
  min-height: 38px;
  padding: 2px 6px;
  border: 1px solid transparent;
  border-radius: 3px;
  line-height: 1.1;
}

.tile :deep(.n-radio__dot-wrapper) {
  position: absolute;
  opacity: 0;
}

.tile :deep(.n-radio__label),
.smaller :deep(.n-button__content) {
  display: grid;
  grid-template-columns: 32px minmax(0, 1fr);
  gap: 10px;
  align-items: center;
  padding: 0;
  text-align: left;
  white-space: normal;
}

.smaller {
  justify-content: start;
  height: auto;
  color: var(--ink);
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
  .palette :deep(.n-radio-group) {
    grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  }
}
</style>
