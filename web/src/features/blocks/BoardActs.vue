<script setup lang="ts">
import { NButton } from 'naive-ui'
import type { useBoard } from './useBoard'

/** What can be done to the places chosen, each with its key. */
defineProps<{ board: ReturnType<typeof useBoard>; canUndo: boolean; canRedo: boolean }>()
const emit = defineEmits<{ undo: []; redo: [] }>()
</script>

<template>
  <div class="keys" role="toolbar" aria-label="What to do with the places chosen">
    <NButton size="small" @click="board.turn(1)">Turn <kbd>T</kbd></NButton>
    <NButton size="small" @click="board.mirror()">Mirror <kbd>M</kbd></NButton>
    <NButton size="small" @click="board.keep()">Copy <kbd>C</kbd></NButton>
    <NButton size="small" @click="board.repeat()">Repeat <kbd>V</kbd></NButton>
    <NButton size="small" @click="board.clear()">Clear <kbd>Del</kbd></NButton>
    <NButton
      size="small"
      :disabled="!canUndo"
      aria-keyshortcuts="Control+Z"
      title="Ctrl Z"
      @click="emit('undo')"
    >
      Undo
    </NButton>
    <NButton
      size="small"
      :disabled="!canRedo"
      aria-keyshortcuts="Control+Y"
      title="Ctrl Y"
      @click="emit('redo')"
    >
      Redo
    </NButton>
  </div>
</template>

<style scoped>
kbd {
  font: inherit;
  color: var(--ink-soft);
  margin-left: 4px;
}

.help {
  color: var(--chalk);
  line-height: 1.35;
}
</style>
