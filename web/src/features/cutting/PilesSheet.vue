<script setup lang="ts">
import type { Project, Schemas } from '@/shared/api/client'
import Len from '@/shared/words/Len.vue'

/** Everything to cut, pile by pile, each under its letter. */
const props = defineProps<{ piles: Schemas['Pile'][]; project: Project }>()
const fabric = (role: string) => props.project.fabrics.find((f) => f.role === role)
const further: Record<number, string> = { 2: 'cut once on the diagonal', 4: 'cut on both diagonals' }
</script>

<template>
  <section class="sheet" aria-label="Piles">
    <h2>Piles</h2>
    <p v-if="!piles.length">
      Nothing to cut yet: plan a unit, or lay out a block and put its counts into the plan.
    </p>
    <ul v-else>
      <li v-for="p in piles" :key="p.letter">
        <b :style="{ borderColor: fabric(p.fabric)?.colour }">{{ p.letter }}</b>
        <span>
          {{ p.count }} {{ fabric(p.fabric)?.name }} <Len :of="p.width" about /><template v-if="!p.square">
            × <Len :of="p.height" about /></template
          ><template v-if="further[p.gives]">, {{ further[p.gives] }}</template>
          <span class="soft">{{ p.name }}{{ p.turns ? '' : '; keeps its direction' }}</span>
        </span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(330px, 1fr));
  gap: 8px 18px;
}

li {
  display: grid;
  grid-template-columns: 40px minmax(0, 1fr);
  gap: 10px;
  line-height: 1.25;
}

b {
  display: grid;
  place-items: center;
  height: 40px;
  border: 0 solid;
  border-left-width: 8px;
  background: #fff;
  box-shadow: inset 0 0 0 1px var(--steel-line);
}

.soft {
  display: block;
}
</style>
