<script setup lang="ts">
import RowInput from '@/shared/form/RowInput.vue'
import { NRadio, NRadioGroup, NTable } from 'naive-ui'
import { useId } from 'vue'

import type { Schemas } from '@/shared/api/client'
import { schoolWords } from '@/shared/words/words'
import Len from '@/shared/words/Len.vue'

/** The schools side by side; the row chosen is the plan. */
defineProps<{ offers: Schemas['Offer'][]; ownCut: boolean; problem?: string }>()
const school = defineModel<string>({ required: true })
const margin = defineModel<string>('margin', { required: true })
const name = useId()
/** The sizes that differ from school to school: lengths of strips follow from the others. */
const sizesOf = (plan: Schemas['UnitPlan']) =>
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
    <NRadioGroup v-model:value="school" :name="name" role="radiogroup" aria-label="Oversize">
      <NTable size="small" :bordered="false">
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
              <NRadio :value="o.school">
                <strong>{{ schoolWords[o.school]?.name }}</strong>
                <small v-if="o.school !== 'own_margin'">{{ schoolWords[o.school]?.line }}</small>
              </NRadio>
              <span v-if="o.school === 'own_margin'" class="margin">
                <RowInput
                  v-model="margin"
                  length
                  labelled="Margin of your own, each side"
                  placeholder="off each side"
                  :wrong="!!problem && !!margin"
                  @update:model-value="school = 'own_margin'"
                />
              </span>
            </th>
            <template v-if="o.plan">
              <td class="nowrap">
                <template v-for="(size, n) in sizesOf(o.plan)" :key="n"
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
      </NTable>
    </NRadioGroup>
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

strong {
  white-space: nowrap;
}

small {
  margin-left: 8px;
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
  display: inline-block;
  width: 150px;
  margin-left: 14px;
}

@media (width <= 760px) {
  small {
    display: none;
  }

  .sheet {
    overflow-x: auto;
  }
}
</style>
