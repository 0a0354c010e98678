<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import { cutWords, plural } from '@/shared/words/words'
import Len from '@/shared/words/Len.vue'

/** The answer: what to cut from which cloth, what to trim to, what it costs. */
const props = defineProps<{ plan: Schemas['UnitPlan']; fabrics: Schemas['Fabric'][]; onTheWay: string[] }>()
const fabric = (role: string) => props.fabrics.find((f) => f.role === role)
const further: Record<number, string> = { 2: 'cut once on the diagonal', 4: 'cut twice on the diagonal' }
</script>

<template>
  <section class="sheet answer" aria-label="What to cut">
    <div>
      <h3>Cut</h3>
      <ul>
        <li v-for="p in plan.pieces" :key="p.role + p.name">
          <i :style="{ background: fabric(p.role)?.colour }" aria-hidden="true" />
          <span>
            <strong>{{ p.count }}</strong>
            {{ p.square ? (p.count === 1 ? 'square of' : 'squares of') : 'of' }}
            <Len :of="p.width" />
            <template v-if="!p.square"> × <Len :of="p.height" /></template>
            from {{ fabric(p.role)?.name }}
            <small v-if="further[p.gives]">
              {{ further[p.gives]
              }}<template v-if="p.left_over">, {{ plural(p.left_over, 'triangle') }} left over</template>
            </small>
            <small v-else-if="plan.told_apart">{{ cutWords[p.name] }}</small>
          </span>
        </li>
      </ul>
    </div>
    <div class="figure">
      <h3>Trim to</h3>
      <p class="big">
        <Len :of="plan.target" about />
        <template v-if="!plan.square"> × <Len :of="plan.target_height" about /></template>
      </p>
    </div>
    <div v-if="onTheWay.length" class="way">
      <p v-for="w in onTheWay" :key="w">{{ w }}</p>
    </div>
    <p class="soft cost">
      {{ plural(plan.made, 'unit')
      }}<template v-if="plan.handed"
        >: {{ plan.made_as_drawn }} as drawn, {{ plan.made_mirrored }} mirrored</template
      ><template v-if="plan.spare">, {{ plan.spare }} spare</template>. {{ plan.cloth }} of cloth,
      {{ plan.waste_percent }}% of it waste.
    </p>
  </section>
</template>

<style scoped>
.answer {
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) auto minmax(0, 1fr);
  gap: 8px 34px;
  align-items: start;
  padding-block: 10px;
}

.big :deep(.number) {
  font-size: 34px;
}

.big {
  white-space: nowrap;
}

ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
  display: grid;
  gap: 3px;
}

li {
  display: grid;
  grid-template-columns: 16px 1fr;
  gap: 8px;
  align-items: baseline;
}

i {
  width: 15px;
  height: 15px;
  border: 1px solid var(--ink);
  align-self: center;
}

strong {
  font-size: 1.14em;
}

small {
  font-size: 16px;
  color: var(--ink-soft);
}

.way {
  grid-column: 1 / -1;
  grid-row: 2;
  line-height: 1.35;
}

.cost {
  line-height: 1.35;
  align-self: center;
}

@media (width <= 820px) {
  .answer {
    grid-template-columns: minmax(0, 1fr) auto;
  }

  .cost {
    grid-column: 1 / -1;
  }
}
</style>
