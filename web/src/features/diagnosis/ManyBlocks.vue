<script setup lang="ts">
import { NTable } from 'naive-ui'
import { computed } from 'vue'

import type { Schemas } from '@/shared/api/client'
import RangeInput from '@/shared/form/RangeInput.vue'

/** Ten thousand blocks of these hands: how their widths fall, how many tips are cut, how many units cannot be trimmed. */
const props = defineProps<{
  many: Schemas['Many']
  seen: string
  eased: string
  rooms: Schemas['Room'][]
  batches: Schemas['Batch'][]
  schools: Record<string, { name: string }>
}>()
const scatter = defineModel<number>({ required: true })
const highest = computed(() => Math.max(...props.many.histogram))
const inHundred = (x: number) => (x > 0 && x < 0.005 ? 'under 1' : String(Math.round(100 * x)))
const rows = computed(() =>
  (
    [
      [`Tips in mid-edge cut off by more than ${props.seen}`, props.many.tips_cut],
      [`Tips in mid-edge floating by more than ${props.seen}`, props.many.tips_floating],
      [`Diagonals past their corner by more than ${props.seen}`, props.many.corners_off],
      [`Crossings stepped by more than ${props.eased}`, props.many.crossings_off],
      [`Blocks small by more than ${props.eased}`, props.many.blocks_small],
    ] as [string, number | null][]
  ).filter((r): r is [string, number] => r[1] !== null),
)
const table = computed(() =>
  props.batches
    .map((b) => ({ name: b.name, list: props.rooms.filter((r) => r.batch === b.number && r.share !== null) }))
    .filter((t) => t.list.length),
)
const alt = computed(
  () =>
    `Widths of ${props.many.blocks.toLocaleString('en')} blocks, from ${props.many.narrowest} to ${props.many.widest}: nine in ten from ${props.many.width.low} to ${props.many.width.high}.`,
)
</script>

<template>
  <section class="sheet" aria-label="Many blocks">
    <h3>{{ many.blocks.toLocaleString('en') }} blocks of these hands</h3>
    <div class="hands">
      <span
        >Hands {{ scatter === 100 ? 'as steady as most' : scatter < 100 ? 'steadier' : 'unsteadier' }}</span
      >
      <RangeInput v-model="scatter" label="How steady the hands are" :min="25" :max="300" :step="25" />
    </div>
    <div class="hist" role="img" :aria-label="alt">
      <i v-for="(n, i) in many.histogram" :key="i" :style="{ height: `${(100 * n) / highest}%` }" />
      <b v-if="many.planned_at !== null" :style="{ left: `${100 * many.planned_at}%` }" />
    </div>
    <p class="ends" aria-hidden="true">
      <span>{{ many.narrowest }}</span>
      <span v-if="many.planned_at !== null">widths across; the line is as planned</span>
      <span v-else>widths across</span>
      <span>{{ many.widest }}</span>
    </p>
    <p>
      Across: {{ many.width.mean }} on average, nine in ten from {{ many.width.low }} to
      {{ many.width.high }}. Around the average, by adding squares, {{ many.width.rss.pretty }} either way; in
      the worst case, all astray the same way, {{ many.width.worst.pretty }}.
    </p>
    <NTable size="small" :bordered="false">
      <tbody>
        <tr v-for="[name, share] in rows" :key="name">
          <th scope="row">{{ name }}</th>
          <td>{{ inHundred(share) }} in 100</td>
        </tr>
      </tbody>
    </NTable>
    <template v-for="t in table" :key="t.name">
      <h4>No room to trim: {{ t.name }}</h4>
      <p class="schools">
        <span v-for="r in t.list" :key="r.school"
          >{{ schools[r.school]?.name }} <strong>{{ inHundred(1 - (r.share ?? 1)) }} in 100</strong></span
        >
      </p>
    </template>
  </section>
</template>

<style scoped>
.hands {
  display: grid;
  grid-template-columns: 200px 1fr;
  gap: 14px;
  align-items: center;
}

.hist {
  display: flex;
  align-items: flex-end;
  gap: 2px;
  position: relative;
  height: 90px;
  margin: 10px 0 0;
  border-bottom: 2px solid var(--ink);
}

.hist i {
  flex: 1;
  background: #2c7480;
}

.hist b {
  position: absolute;
  top: -4px;
  bottom: -4px;
  width: 2px;
  margin-left: -1px;
  background: var(--ink);
}

.ends {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  margin: 4px 0 8px;
  color: var(--ink-soft);
}

table {
  margin: 6px 0;
}

th {
  text-align: left;
  font-weight: 400;
  line-height: 1.25;
}

td {
  text-align: right;
  white-space: nowrap;
  padding: 3px 0;
}

tr + tr > * {
  border-top: 1px solid var(--steel-mid);
}

h4 {
  margin: 8px 0 2px;
}

.schools {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}
</style>
