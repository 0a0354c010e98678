<script setup lang="ts">
import { NTable } from 'naive-ui'
import { ref } from 'vue'

import type { Schemas } from '@/shared/api/client'
import IntervalBar from '@/shared/drawing/IntervalBar.vue'
import type { Of } from '@/shared/offline/outgoing'

import { type Diagnosis, useWorking } from './api'

/** Under "Show the working": every cause with its interval, every figure of the block taken apart, every reading's equation. */
const props = defineProps<{ found: Diagnosis; of: Of | Schemas['ByHandRequest'] }>()
const opened = ref(false)
const { data: working, failureCount } = useWorking(
  () => props.of,
  () => opened.value,
)
const batch = (n: number) => props.found.places.batches.find((b) => b.number === n)?.name ?? ''
const cause = (p: { name: string; batch: number }) => `${p.name}${p.batch >= 0 ? `, ${batch(p.batch)}` : ''}`
const sources: Record<string, string> = {
  units: 'units from one to the next',
  seams: 'seams from one to the next',
  along: 'along a seam',
  cutting: 'pieces as cut',
}
</script>

<template>
  <details
    class="sheet"
    aria-label="Show the working"
    @toggle="opened = ($event.target as HTMLDetailsElement).open || opened"
  >
    <summary>Show the working</summary>
    <h3>How likely each cause is the one that leads</h3>
    <div class="leads" role="group" aria-label="Causes">
      <div v-for="l in found.verdict.leads.slice(0, 12)" :key="l.parameter.key" class="lead">
        <span>{{ cause(l.parameter) }}{{ l.where && `: ${l.where}` }}</span>
        <template v-if="l.measured">
          <IntervalBar :at="l.at" :from="l.from_at" :to="l.to_at" />
          <span class="figures"
            ><span class="number">{{ l.mean.pretty }}</span>
            <small class="soft">{{ l.low.pretty }} to {{ l.high.pretty }}, nine times in ten</small></span
          >
        </template>
        <span v-else class="soft two">not measured</span>
        <span class="number">{{ l.leads_percent }} in 100</span>
      </div>
    </div>
    <p class="soft">
      Beside steady hands these vary:
      <template v-for="(s, i) in found.scatter" :key="s.where"
        >{{ i ? '; ' : '' }}{{ sources[s.where] ?? s.where }} {{ s.times.toFixed(1) }} times</template
      >.
    </p>
    <p v-if="!working" class="soft" role="status">
      {{
        failureCount
          ? 'The rest is worked out by the program on your computer, which does not answer.'
          : 'Writing it down…'
      }}
    </p>
    <template v-else>
      <h3>What each cause adds</h3>
      <div class="scroll" tabindex="0" role="region" aria-label="Figures of the block">
        <NTable size="small" :bordered="false">
          <thead>
            <tr>
              <th scope="col">Figure</th>
              <th scope="col">Off by</th>
              <th scope="col">Of which</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="s in working.shares" :key="s.feature">
              <th scope="row">{{ s.name }}</th>
              <td class="number">{{ s.whole.pretty }}</td>
              <td>
                <span v-for="p in s.parts" :key="p.key" class="part"
                  >{{ p.name }} <b class="number">{{ p.adds.pretty }}</b></span
                >
                <span class="part soft"
                  >units and seams by themselves, usual fold <b class="number">{{ s.rest.pretty }}</b></span
                >
              </td>
            </tr>
          </tbody>
        </NTable>
      </div>
      <p class="soft">
        Left unexplained of a reading, by the causes and the units' own scatter together:
        {{ working.left_over.pretty }} in the mean.
      </p>
      <details>
        <summary>Show the working of every reading</summary>
        <ol class="work">
          <li v-for="(w, i) in working.readings" :key="i" :class="{ odd: w.odd }">
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
    </template>
  </details>
</template>

<style scoped>
.lead {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(80px, 1fr) 210px 90px;
  gap: 12px;
  align-items: center;
  padding: 2px 0;
}

.two {
  grid-column: span 2;
}

.figures {
  display: grid;
  text-align: right;
}

small {
  font-size: 16px;
}

@media (width <= 700px) {
  .lead {
    grid-template-columns: 1fr auto;
  }
}

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
