<script setup lang="ts">
import { computed } from 'vue'

import type { Schemas } from '@/shared/api/client'
import { readingWords } from '@/shared/lib/words'
import SeamCost from '@/shared/ui/SeamCost.vue'
import SizeLadder, { type Pin } from '@/shared/ui/SizeLadder.vue'

/** The plan's sizes with the readings standing on them, and what the seam costs. */
const props = defineProps<{ check: Schemas['Check']; lit?: string | null }>()

const pins = computed<Pin[]>(() =>
  props.check.readings
    .filter((r) => r.rung !== null && r.at !== null)
    .map((r) => ({
      id: r.id,
      dimension: r.dimension!,
      rung: r.rung!,
      at: r.at!,
      label: `${readingWords[r.kind]?.name} ${r.value.pretty}, ${r.said}`,
      off: r.off,
    })),
)
</script>

<template>
  <section class="sheet" aria-label="Readings on the ladder">
    <SizeLadder v-for="l in check.ladders" :key="l.dimension" :ladder="l" :pins="pins" :lit="lit" />
    <SeamCost class="soft cost" :cost="check.seam_cost" />
  </section>
</template>

<style scoped>
.cost {
  margin-top: 10px;
}
</style>
