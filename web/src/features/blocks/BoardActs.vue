<script setup lang="ts">
import type { useBoard } from './useBoard'

/** What can be done to the places chosen, each with its key. */
defineProps<{ board: ReturnType<typeof useBoard>; canUndo: boolean; canRedo: boolean }>()
const emit = defineEmits<{ undo: []; redo: [] }>()
</script>

<template>
  <div class="keys" role="toolbar" aria-label="What to do with the places chosen">
    <button type="button" @click="board.turn(1)">Turn <kbd>T</kbd></button>
    <button type="button" @click="board.mirror()">Mirror <kbd>M</kbd></button>
    <button type="button" @click="board.keep()">Copy <kbd>C</kbd></button>
    <button type="button" @click="board.repeat()">Repeat <kbd>V</kbd></button>
    <button type="button" @click="board.clear()">Clear <kbd>Del</kbd></button>
    <button
      type="button"
      :disabled="!canUndo"
      aria-keyshortcuts="Control+Z"
      title="Ctrl Z"
      @click="emit('undo')"
    >
      Undo
    </button>
    <button
      type="button"
      :disabled="!canRedo"
      aria-keyshortcuts="Control+Y"
      title="Ctrl Y"
      @click="emit('redo')"
    >
      Redo
    </button>
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
