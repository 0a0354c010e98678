<script setup lang="ts">
import SelectInput from '@/shared/form/SelectInput.vue'
import { computed } from 'vue'

import type { Schemas } from '@/shared/api/client'
import { kindWords } from '@/shared/words/words'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'

import { type SavedBlock, type Spot, spotsOf } from './api'

/** The whole block with one unit lying another way: what a slip would look like. */
const props = defineProps<{
  block: SavedBlock
  colours: Record<string, string>
  alternatives: Schemas['Alternative'][]
}>()
const spot = defineModel<[number, number] | null>({ required: true })
const laid = computed(() => spotsOf(props.block.view).filter((s) => s.content))
const chosen = computed({
  get: () => (spot.value ? spot.value.join(' ') : ''),
  set: (v: string) => (spot.value = v ? (v.split(' ').map(Number) as [number, number]) : null),
})
const name = (s: Spot) =>
  `row ${s.row + 1}, column ${s.column + 1}: ${s.name || kindWords[s.content]?.name.toLowerCase() || 'block'}`
const places = computed(() => [
  { value: '', label: 'choose a place' },
  ...laid.value.map((s) => ({ value: `${s.column} ${s.row}`, label: name(s) })),
])
</script>

<template>
  <section class="sheet" aria-label="If one unit lay otherwise">
    <h2>If one unit lay otherwise</h2>
    <div class="which">
      The unit at
      <SelectInput v-model="chosen" class="list" labelled="The unit at" :options="places" />
    </div>
    <div class="looks">
      <figure v-for="a in alternatives" :key="a.said">
        <CoreDrawing :drawing="a.drawing" :colours="colours" :width="190" />
        <figcaption :class="{ it: a.as_it_is }">{{ a.said }}</figcaption>
      </figure>
    </div>
    <p v-if="spot && alternatives.length === 1" class="soft">
      However this unit is turned or mirrored, it looks the same.
    </p>
  </section>
</template>

<style scoped>
.which {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  margin: 8px 0 12px;
}

.list {
  width: 340px;
}

.looks {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 14px;
}

figure {
  margin: 0;
}

figcaption {
  margin-top: 4px;
  line-height: 1.2;
}

.it {
  font-weight: 600;
}
</style>
