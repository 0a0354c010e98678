<script setup lang="ts">
import { NButton, NTable } from 'naive-ui'
import { computed, ref } from 'vue'

import type { Schemas } from '@/shared/api/client'
import { methodWords, plural, schoolWords } from '@/shared/words/words'
import Len from '@/shared/words/Len.vue'

type Way = Schemas['Way']
const props = defineProps<{
  ways: Way[]
  kind: string
  wanted: number
  chosen: { method: string; school: string }
}>()
const emit = defineEmits<{ choose: [Way] }>()

interface Column {
  key: string
  title: string
  of: (w: Way) => number
  descending?: boolean
}
/** Columns sort by what the core counted; the first click sorts the better way first. */
const columns = computed<Column[]>(() => [
  { key: 'waste', title: 'Cloth, waste', of: (w) => w.waste_percent },
  { key: 'margin', title: 'To trim a side', of: (w) => w.margin_rank, descending: true },
  { key: 'pieces', title: 'Pieces to cut', of: (w) => w.pieces },
  { key: 'seams', title: 'Seams to sew', of: (w) => w.seams },
  { key: 'apart', title: 'Cuts after sewing', of: (w) => w.cuts_apart },
  { key: 'bias', title: 'Bias edges', of: (w) => w.bias_percent + (w.loose_bias ? 0.5 : 0) },
  ...(withHand.value
    ? [{ key: 'hand', title: 'At hand', of: (w: Way) => w.at_hand ?? 0, descending: true }]
    : []),
])
const withHand = computed(() => props.ways.some((w) => w.at_hand !== null))
const sortedBy = ref<{ key: string; down: boolean } | null>(null)

const shown = computed(() => {
  const planned = props.ways.filter((w) => !w.refusal)
  const sort = sortedBy.value
  const column = columns.value.find((c) => c.key === sort?.key)
  if (!sort || !column) return planned
  const sign = sort.down ? -1 : 1
  return [...planned].sort((a, b) => sign * (column.of(a) - column.of(b)))
})
const refusals = computed(() => {
  const seen = new Map<string, string[]>()
  for (const w of props.ways)
    if (w.refusal) {
      const who = methodWords(props.kind, w.method).name
      const names = seen.get(w.refusal) ?? []
      if (!names.includes(who)) seen.set(w.refusal, [...names, who])
    }
  return [...seen]
})

/** Five to begin with, and the way that is planned wherever it stands. */
const FIRST = 5
const all = ref(false)
const first = computed(() => shown.value.filter((w, n) => all.value || n < FIRST || isChosen(w)))
const more = computed(() => shown.value.length - first.value.length)

function sort(c: Column) {
  const now = sortedBy.value
  const first = c.descending ?? false
  sortedBy.value =
    now?.key !== c.key
      ? { key: c.key, down: first }
      : now.down === first
        ? { key: c.key, down: !first }
        : null
}
const aria = (c: Column) =>
  sortedBy.value?.key === c.key ? (sortedBy.value.down ? 'descending' : 'ascending') : 'none'
const isChosen = (w: Way) => w.method === props.chosen.method && w.school === props.chosen.school
</script>

<template>
  <section class="sheet" aria-label="All ways side by side">
    <div class="scroll" tabindex="0" role="region" aria-label="Ways and schools">
      <NTable size="small" :bordered="false">
        <thead>
          <tr>
            <th scope="col">Way, oversize</th>
            <th scope="col">Cut</th>
            <th v-for="c in columns" :key="c.key" scope="col" :aria-sort="aria(c)">
              <NButton text class="sorts" @click="sort(c)">
                {{ c.title }}
                <span aria-hidden="true">{{ { ascending: '↑', descending: '↓', none: '' }[aria(c)] }}</span>
              </NButton>
            </th>
            <th scope="col">Hands, ruler</th>
            <th scope="col"><span class="visually-hidden">Choose</span></th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="w in first"
            :key="w.method + w.school"
            :class="{ on: isChosen(w), held: w.drawbacks.length }"
          >
            <th scope="row">
              <strong>{{ methodWords(kind, w.method).name }}</strong>
              {{ schoolWords[w.school]?.name.toLowerCase() }}
              <small v-for="d in w.drawbacks" :key="d" class="drawback">{{ d }}</small>
            </th>
            <td>
              <span v-for="(size, name, n) in w.cuts" :key="name"
                ><template v-if="n">, </template><Len :of="size" about
              /></span>
            </td>
            <td>{{ w.cloth }}, {{ w.waste_percent }}%</td>
            <td><Len v-if="w.margin" :of="w.margin" about /></td>
            <td>{{ w.pieces }}</td>
            <td>
              {{ w.seams }} <small><Len :of="w.sewn" /> long</small>
            </td>
            <td>{{ w.cuts_apart || 'none' }}</td>
            <td>
              {{ w.bias_percent ? `${w.bias_percent}% outside` : 'inside'
              }}<template v-if="w.loose_bias">, loose</template>
            </td>
            <td v-if="withHand">
              {{ plural(w.at_hand ?? 0, 'unit') }}
              <small v-if="w.largest">largest <Len :of="w.largest" /></small>
              <small v-else>fits nowhere</small>
            </td>
            <td>
              <template v-if="w.handed"
                >{{ w.hands === 'half_each' ? 'one of each' : 'as wanted' }},
              </template>
              {{ w.ruler === null ? 'no ruler listed' : w.ruler || 'no ruler of yours' }}
            </td>
            <td>
              <span v-if="isChosen(w)" class="soft">the plan</span>
              <NButton
                v-else
                size="small"
                :aria-label="`Plan by ${methodWords(kind, w.method).name}, ${schoolWords[w.school]?.name}`"
                @click="emit('choose', w)"
              >
                Plan it
              </NButton>
            </td>
          </tr>
        </tbody>
      </NTable>
    </div>
    <p v-if="more || all" class="more">
      <NButton size="small" :aria-expanded="all" @click="all = !all">
        {{ all ? 'Show the first five' : `Show ${more} more` }}
      </NButton>
    </p>
    <p class="soft">
      Pieces, seams and cuts are counted for {{ wanted === 1 ? 'the one unit' : `all ${wanted} units` }}.
    </p>
    <ul v-if="refusals.length" class="refusals">
      <li v-for="[why, who] in refusals" :key="why" class="soft">{{ who.join(', ') }}: {{ why }}</li>
    </ul>
  </section>
</template>

<style scoped>
.scroll {
  position: relative;
  overflow-x: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  text-align: left;
  padding: 5px 14px 5px 0;
  font-weight: 400;
  line-height: 1.2;
  vertical-align: top;
}

thead th {
  font-weight: 550;
  font-stretch: 88%;
  border-bottom: 2px dashed var(--steel-line);
  white-space: nowrap;
}

.sorts {
  font-stretch: 88%;
  color: var(--petrol);
  text-decoration: underline;
}

tbody tr + tr > * {
  border-top: 1px solid var(--steel-mid);
}

tr.on > * {
  background: #fdf1d2;
}

tr > :first-child {
  padding-left: 10px;
}

tr.on > :first-child {
  box-shadow: inset 5px 0 0 var(--oilskin);
}

strong {
  display: block;
}

small {
  display: block;
  font-size: 16px;
  color: var(--ink-soft);
}

.drawback::before {
  content: '✕ ';
}

.drawback {
  color: var(--buoy);
}

.more {
  margin: 10px 0;
}

.refusals {
  margin: 10px 0 0;
  padding-left: 20px;
}
</style>
