<script setup lang="ts">
import { ref } from 'vue'

/** What is done to the block as a whole. */
const emit = defineEmits<{ symmetry: [string]; whole: [string] }>()
const symmetry = ref('quarter_turns')
const symmetries = [
  { value: 'quarter_turns', label: 'by quarter turns' },
  { value: 'half_turn', label: 'by a half turn' },
  { value: 'sideways', label: 'mirrored sideways' },
  { value: 'up_and_down', label: 'mirrored up and down' },
  { value: 'four_ways', label: 'mirrored four ways' },
]
</script>

<template>
  <div class="keys">
    <label>
      <span class="visually-hidden">Symmetry</span>
      <select v-model="symmetry">
        <option v-for="s in symmetries" :key="s.value" :value="s.value">{{ s.label }}</option>
      </select>
    </label>
    <button type="button" @click="emit('symmetry', symmetry)">Fill the rest</button>
    <button type="button" @click="emit('whole', 'turn_whole')">Turn the block</button>
    <button type="button" @click="emit('whole', 'mirror_whole')">Mirror the block</button>
  </div>
  <p class="help">
    Arrows move, Shift chooses more, Ctrl with an arrow carries the unit along, Enter lays what is in hand.
    Laid again, it turns.
  </p>
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
