<script setup lang="ts">
import type { Sewn } from './api'

/** Every figure of the block taken apart, and the equation of every reading with its figures. */
defineProps<{ sewn: Sewn; name: (p: { cause: string; name: string }) => string }>()
</script>

<template>
  <section class="sheet" aria-label="Taken apart">
    <h3>What each cause adds</h3>
    <div class="scroll" tabindex="0" role="region" aria-label="Figures of the block">
      <table>
        <thead>
          <tr>
            <th scope="col">Figure</th>
            <th scope="col">Off by</th>
            <th scope="col">Of which</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="s in sewn.verdict.shares" :key="s.feature">
            <th scope="row">{{ s.name }}</th>
            <td class="number">{{ s.whole.pretty }}</td>
            <td>
              <span v-for="p in s.parts" :key="p.key" class="part"
                >{{ name(p) }} <b class="number">{{ p.adds.pretty }}</b></span
              >
              <span class="part soft"
                >units and seams by themselves, usual fold <b class="number">{{ s.rest.pretty }}</b></span
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="soft">
      Left unexplained of a reading, by the causes and the units' own scatter together:
      {{ sewn.left_over.pretty }} in the mean.
    </p>
    <details>
      <summary>Show the working of every reading</summary>
      <ol class="work">
        <li v-for="(w, i) in sewn.workings.slice(0, 200)" :key="i" :class="{ odd: w.odd }">
          <strong>{{ w.said }}: {{ w.read.pretty }}</strong>
          <span class="eq">{{ w.equation }}</span>
          <span>
            {{ w.nominal.pretty }} when all is true<template v-for="t in w.terms" :key="t.key"
              >; {{ t.said }}: {{ t.times.toFixed(2) }} × → {{ t.adds.pretty }}</template
            >; by itself {{ w.own.pretty }}. Together {{ w.fitted.pretty }}, left over
            {{ w.left_over.pretty }}.
          </span>
          <span class="soft">{{ w.section }}</span>
        </li>
      </ol>
    </details>
  </section>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  text-align: left;
  font-weight: 400;
  padding: 4px 14px 4px 0;
  vertical-align: top;
  line-height: 1.25;
}

thead th {
  font-weight: 550;
  border-bottom: 2px dashed var(--steel-line);
}

tbody tr + tr > * {
  border-top: 1px solid var(--steel-mid);
}

.part {
  display: inline-block;
  margin-right: 16px;
}

summary {
  cursor: pointer;
  margin-top: 10px;
  font-weight: 600;
}

.work {
  display: grid;
  gap: 10px;
  padding-left: 28px;
}

.work li > * {
  display: block;
  line-height: 1.3;
}

.work strong::first-letter {
  text-transform: uppercase;
}

.eq {
  font-style: italic;
}

.odd {
  background: #fdf1d2;
}
</style>
