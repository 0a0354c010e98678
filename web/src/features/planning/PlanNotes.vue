<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import Len from '@/shared/words/Len.vue'
import SeamCost from '@/shared/ui/SeamCost.vue'

defineProps<{ plan: Schemas['UnitPlan']; seamCost: Schemas['SeamCost'] }>()
</script>

<template>
  <section class="sheet parts" aria-label="Worth knowing">
    <div>
      <h3>Finished or unfinished</h3>
      <p>
        Trim to <Len :of="plan.target" about /><template v-if="!plan.square">
          by <Len :of="plan.target_height" about /></template
        >, unfinished. Joined on all sides it finishes <Len :of="plan.finished" about /><template
          v-if="!plan.square"
        >
          by <Len :of="plan.finished_height" about /></template
        >. The two differ by two seam allowances.
      </p>
    </div>
    <div>
      <h3>What the seam costs</h3>
      <SeamCost :cost="seamCost" />
    </div>
  </section>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 22px;
}

@media (width <= 820px) {
  .parts {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
