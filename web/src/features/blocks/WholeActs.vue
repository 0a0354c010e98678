<script setup lang="ts">
import SelectInput from '@/shared/form/SelectInput.vue'
import { NButton } from 'naive-ui'
import { ref } from 'vue'

import type { Edit } from './useLayout'

/** What is done to the block as a whole. */
const emit = defineEmits<{ symmetry: [Edit['symmetry']]; whole: [Edit['do']] }>()
const symmetry = ref<NonNullable<Edit['symmetry']>>('quarter_turns')
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
    <SelectInput v-model="symmetry" class="which" small labelled="Symmetry" :options="symmetries" />
    <NButton size="small" @click="emit('symmetry', symmetry)">Fill the rest</NButton>
    <NButton size="small" @click="emit('whole', 'turn_whole')">Turn the block</NButton>
    <NButton size="small" @click="emit('whole', 'mirror_whole')">Mirror the block</NButton>
  </div>
  <p class="help">
    Arrows move, Shift chooses more, Ctrl with an arrow carries the unit along, Enter lays what is in hand.
    Laid again, it turns.
  </p>
</template>

<style scoped>
.which {
  width: 230px;
}

.help {
  color: var(--chalk);
  line-height: 1.35;
}
</style>
