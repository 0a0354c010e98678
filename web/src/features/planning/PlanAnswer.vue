<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import { plural } from '@/shared/lib/words'
import Len from '@/shared/ui/Len.vue'

/** The answer in one line: what to cut from which cloth, what to trim to, what it costs. */
const props = defineProps<{ plan: Schemas['UnitPlan']; fabrics: Schemas['Fabric'][] }>()
const fabric = (role: string) => props.fabrics.find((f) => f.role === role)
</script>

<template>
  <section class="sheet answer" aria-label="What to cut">
    <p class="figure">
      <span class="soft">Cut squares of</span>
      <Len :of="plan.cut" />
    </p>
    <ul>
      <li v-for="p in plan.pieces" :key="p.role">
        <i :style="{ background: fabric(p.role)?.colour }" aria-hidden="true" />
        <strong>{{ p.count }}</strong> from {{ fabric(p.role)?.name }}
      </li>
    </ul>
    <p class="figure">
      <span class="soft">Trim units to</span>
      <Len :of="plan.target" about />
    </p>
    <p class="soft cost">
      {{ plural(plan.batches, 'pair') }} give {{ plural(plan.made, 'unit')
      }}<template v-if="plan.spare">, {{ plan.spare }} spare</template>. {{ plan.cloth }} of cloth,
      {{ plan.waste_percent }}% of it waste<template v-if="!plan.spare">
        ({{ plan.trimmings }} trimmed off)</template
      >.
    </p>
  </section>
</template>

<style scoped>
.answer {
  display: grid;
  grid-template-columns: auto auto auto minmax(0, 1fr);
  gap: 8px 34px;
  align-items: center;
  padding-block: 10px;
}

.figure {
  display: grid;
  white-space: nowrap;
}

.figure :deep(.number) {
  font-size: 34px;
}

ul {
  list-style: none;
  margin: 0;
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

.cost {
  line-height: 1.3;
}

@media (width <= 820px) {
  .answer {
    grid-template-columns: auto auto 1fr;
  }

  .cost {
    grid-column: 1 / -1;
  }
}
</style>
