<script setup lang="ts">
import { useId } from 'vue'

import type { Schemas } from '@/shared/api/client'
import { schoolWords } from '@/shared/lib/words'
import Len from '@/shared/ui/Len.vue'

/** The schools side by side; the row chosen is the plan. */
defineProps<{ offers: Schemas['Offer'][]; ownCut: boolean; problem?: string }>()
const school = defineModel<string>({ required: true })
const margin = defineModel<string>('margin', { required: true })
const name = useId()
/** The sizes that differ from school to school: lengths of strips follow from the others. */
const shown = (plan: Schemas['UnitPlan']) =>
  Object.entries(plan.cuts)
    .filter(([n]) => !['strip', 'strip_length', 'band', 'band_length'].includes(n))
    .map(([, size]) => size)
    .slice(0, 3)
</script>

<template>
  <section class="sheet" aria-label="Schools of oversizing">
    <p v-if="ownCut" class="soft">
      The squares are already cut, so the schools below are only for comparison.
    </p>
    <table>
      <thead>
        <tr>
          <th scope="col">Oversize</th>
          <th scope="col">Cut</th>
          <th scope="col">A side</th>
          <th scope="col">Cloth</th>
          <th scope="col">Waste</th>
          <th scope="col">Can be trimmed</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="o in offers" :key="o.school" :class="{ on: o.school === school && !ownCut }">
          <th scope="row">
            <label>
              <input v-model="school" type="radio" :name="name" :value="o.school" />
              <span>{{ schoolWords[o.school]?.name }}</span>
              <small v-if="o.school !== 'own_margin'">{{ schoolWords[o.school]?.line }}</small>
            </label>
            <input
              v-if="o.school === 'own_margin'"
              v-model="margin"
              class="margin"
              aria-label="Margin of your own, each side"
              placeholder="off each side"
              autocomplete="off"
              :aria-invalid="problem && margin ? 'true' : undefined"
              @input="school = 'own_margin'"
            />
          </th>
          <template v-if="o.plan">
            <td class="nowrap">
              <template v-for="(size, n) in shown(o.plan)" :key="n"
                ><template v-if="n">, </template><Len :of="size" about
              /></template>
            </td>
            <td><Len :of="o.plan.margin" about /></td>
            <td class="nowrap">{{ o.plan.cloth }}</td>
            <td>{{ o.plan.waste_percent }}%</td>
            <td :class="{ serious: o.plan.room_percent !== null && o.plan.room_percent < 99 }">
              <template v-if="o.plan.room_percent !== null">{{ o.plan.room_percent }} in 100</template>
              <span v-else class="soft">after three seam readings</span>
            </td>
          </template>
          <td v-else colspan="5" class="soft">{{ o.refusal }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.sheet {
  padding: 8px 18px 10px;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  text-align: left;
  padding: 2px 10px 2px 0;
  line-height: 1.25;
  font-weight: 400;
}

thead th {
  font-weight: 550;
  font-stretch: 88%;
  border-bottom: 2px dashed var(--steel-line);
}

tbody tr + tr > * {
  border-top: 1px solid var(--steel-mid);
}

label {
  display: inline-grid;
  grid-template-columns: auto auto 1fr;
  align-items: baseline;
  gap: 8px;
  cursor: pointer;
}

label span {
  font-weight: 600;
  white-space: nowrap;
}

small {
  font-size: 16px;
  color: var(--ink-soft);
}

tr.on > * {
  background: #fdf1d2;
}

tr > :first-child {
  padding-left: 12px;
}

tr.on > :first-child {
  box-shadow: inset 5px 0 0 var(--oilskin);
}

.nowrap {
  white-space: nowrap;
}

.margin {
  font: inherit;
  width: 130px;
  margin-left: 14px;
  padding: 0 8px;
  border: 1px solid var(--steel-line);
  border-radius: 3px;
}

.margin[aria-invalid] {
  border: 2px solid var(--buoy);
}

input[type='radio'] {
  accent-color: var(--petrol);
  width: 18px;
  height: 18px;
  align-self: center;
}

@media (width <= 820px) {
  small {
    display: none;
  }

  .sheet {
    overflow-x: auto;
  }
}
</style>
