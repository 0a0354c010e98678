<script setup lang="ts">
import { computed } from 'vue'

import SizeLadder, { type Pin } from '@/shared/drawing/SizeLadder.vue'

import type { Diagnosis } from './api'

/** The plan's sizes with the readings standing on them. */
const props = defineProps<{ found: Diagnosis }>()
const pins = computed<Pin[]>(() =>
  props.found.readings.flatMap((r) =>
    r.pin ? [{ ...r.pin, id: r.id, label: `${r.said} ${r.pretty}, ${r.which}`, off: r.off }] : [],
  ),
)
</script>

<template>
  <section v-if="found.ladders.length" class="sheet" aria-label="Readings on the ladder">
    <SizeLadder v-for="l in found.ladders" :key="l.dimension" :ladder="l" :pins="pins" />
  </section>
</template>
