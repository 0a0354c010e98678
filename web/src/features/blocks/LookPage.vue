<script setup lang="ts">
import { computed, ref } from 'vue'

import { Refusal, type Project } from '@/shared/api/client'
import { greys } from '@/shared/lib/colours'
import Choice from '@/shared/form/Choice.vue'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'

import { type SavedBlock, type Sheet, useLooking } from './api'
import FindTurned from './FindTurned.vue'
import OtherLooks from './OtherLooks.vue'

/** The block before it is sewn: many of it, in greys, taken apart, and with a unit lying otherwise. */
const props = defineProps<{
  project: Project
  sheet: Sheet
  block: SavedBlock
  colours: Record<string, string>
}>()
const across = ref('3')
const lying = ref('upright')
const shade = ref('colours')
const spot = ref<[number, number] | null>(null)

const lookAsked = () => ({
  across: Number(across.value),
  every_second: lying.value as 'upright',
  column: spot.value?.[0] ?? null,
  row: spot.value?.[1] ?? null,
})
const { data, error } = useLooking(() => props.block.id, lookAsked)
const shown = computed(() => (shade.value === 'values' ? greys(props.project.fabrics) : props.colours))
const refusal = computed(() => (error.value instanceof Refusal ? error.value.message : ''))
</script>

<template>
  <main id="main" class="look">
    <h2 class="visually-hidden">Look {{ block.view.name }} over</h2>
    <section class="sheet" aria-label="Side by side">
      <div class="choices">
        <Choice
          v-model="across"
          label="Side by side"
          :options="['1', '2', '3', '4'].map((n) => ({ value: n, label: n === '1' ? 'one' : `${n} × ${n}` }))"
        />
        <Choice
          v-model="lying"
          label="Every second block"
          :options="[
            { value: 'upright', label: 'as it is' },
            { value: 'quarter', label: 'turned a quarter' },
            { value: 'half', label: 'turned half round' },
            { value: 'mirrored', label: 'mirrored' },
          ]"
        />
        <Choice
          v-model="shade"
          label="Seen"
          :options="[
            { value: 'colours', label: 'in colour' },
            { value: 'values', label: 'in greys, by value' },
          ]"
        />
      </div>
      <p>
        <a :href="`/api/blocks/${block.id}/picture.svg`" target="_blank">The block as SVG</a>, at its own
        size.
      </p>
      <p v-if="refusal" class="serious" role="alert">{{ refusal }}</p>
      <CoreDrawing v-if="data" :drawing="data.many" :colours="shown" :width="620" />
    </section>
    <div class="beside">
      <section class="sheet" aria-label="Taken apart">
        <h2>Taken apart</h2>
        <p class="soft">Each unit as it is trimmed. The shaded rim goes into the seams.</p>
        <CoreDrawing v-if="data" :drawing="data.apart" :colours="shown" :width="470" />
      </section>
      <OtherLooks v-model="spot" :block="block" :colours="shown" :alternatives="data?.alternatives ?? []" />
    </div>
    <FindTurned :project="project" :block="block" :colours="colours" class="wide" />
  </main>
</template>

<style scoped>
.look {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}

.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 22px;
  margin-bottom: 14px;
}

.beside {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}

.wide {
  grid-column: 1 / -1;
}

@media (width <= 1000px) {
  .look {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
