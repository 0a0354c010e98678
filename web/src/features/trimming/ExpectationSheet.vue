<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'
import Len from '@/shared/words/Len.vue'

/** What a unit trimmed true shows, and the same spot when the trim slipped. */
defineProps<{ expectation: Schemas['Expectation']; colours: Record<string, string> }>()
const edges: Record<string, string> = {
  left: 'left edge',
  right: 'right edge',
  top: 'top edge',
  bottom: 'bottom edge',
}
</script>

<template>
  <section class="sheet expectation" aria-label="What it should show">
    <div>
      <h3>What it should show</h3>
      <p>{{ expectation.says }}</p>
      <ul v-if="expectation.marks.length">
        <li v-for="m in expectation.marks" :key="m.name + m.side">
          {{ m.name }}: <Len :of="m.distance" about /> {{ m.distance.exact === '0' ? 'on the' : 'from the' }}
          {{ edges[m.side] }}
        </li>
      </ul>
      <p v-if="expectation.reassures" class="reassures">{{ expectation.reassures }}</p>
    </div>
    <figure>
      <CoreDrawing :drawing="expectation.true" :colours="colours" :width="190" />
      <figcaption>True</figcaption>
    </figure>
    <figure>
      <CoreDrawing :drawing="expectation.slipped" :colours="colours" :width="190" />
      <figcaption>Slipped by <Len :of="expectation.slip" />: trim it again, or make it again</figcaption>
    </figure>
  </section>
</template>

<style scoped>
.expectation {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 190px 190px;
  gap: 24px;
  align-items: start;
}

figure {
  margin: 0;
  display: grid;
  gap: 6px;
}

figure :deep(svg) {
  overflow: hidden;
  border: 1px solid var(--steel-line);
}

figcaption {
  color: var(--ink-soft);
  line-height: 1.2;
}

ul {
  margin: 6px 0;
  padding-left: 20px;
}

.reassures {
  border-left: 5px solid var(--oilskin);
  padding-left: 10px;
  margin-top: 8px;
}

@media (width <= 820px) {
  .expectation {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }

  .expectation > div {
    grid-column: 1 / -1;
  }
}
</style>
