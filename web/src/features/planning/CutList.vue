<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import { plural } from '@/shared/lib/words'
import Len from '@/shared/ui/Len.vue'

const props = defineProps<{
  plan: Schemas['UnitPlan']
  seamCost: Schemas['SeamCost']
  fabrics: Schemas['Fabric'][]
}>()
const fabric = (role: string) => props.fabrics.find((f) => f.role === role)
</script>

<template>
  <section class="sheet parts" aria-label="What to cut">
    <div>
      <h3>Cut</h3>
      <ul>
        <li v-for="p in plan.pieces" :key="p.role">
          <i :style="{ background: fabric(p.role)?.colour }" aria-hidden="true" />
          {{ plural(p.count, 'square') }} of <Len :of="p.size" /> from {{ fabric(p.role)?.name }}
        </li>
      </ul>
      <p class="soft">
        {{ plural(plan.batches, 'pair') }} give {{ plural(plan.made, 'unit')
        }}<template v-if="plan.spare">, {{ plan.spare }} spare</template>. {{ plan.cloth }} of cloth,
        {{ plan.trimmings }} of it trimmings ({{ plan.waste_percent }}% waste).
      </p>
    </div>
    <div>
      <h3>Finished or unfinished</h3>
      <p>
        Trim to <Len :of="plan.target" about />, unfinished. Joined on all sides it finishes
        <Len :of="plan.finished" about />. The two differ by two seam allowances.
      </p>
    </div>
    <div>
      <h3>What the seam costs</h3>
      <p>
        A row of {{ seamCost.units }} has {{ plural(seamCost.seams, 'seam') }} across: each
        <Len :of="seamCost.slip" /> too wide makes it <Len :of="seamCost.cost" /> short.
      </p>
    </div>
  </section>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: 1.35fr 1fr 1fr;
  gap: 22px;
}

ul {
  list-style: none;
  margin: 4px 0;
  padding: 0;
}

i {
  display: inline-block;
  width: 15px;
  height: 15px;
  border: 1px solid var(--ink);
  vertical-align: -2px;
  margin-right: 6px;
}

@media (width <= 820px) {
  .parts {
    grid-template-columns: 1fr;
  }
}
</style>
