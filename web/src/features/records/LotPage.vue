<script setup lang="ts">
import { NButton, NTable } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'

import { type PlannedUnit, type Project, Refusal } from '@/shared/api/client'
import { font, ink, level, axisOf } from '@/shared/drawing/axes'
import PlotArea from '@/shared/drawing/PlotArea.vue'
import LengthInput from '@/shared/form/LengthInput.vue'
import SelectInput from '@/shared/form/SelectInput.vue'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'
import WaitingFor from '@/shared/ui/WaitingFor.vue'
import { readingWords } from '@/shared/words/words'

import { type LotSheet, useLot } from './api'

/** One unit in so many measured while a lot is sewn or trimmed: steady, or since when not. */
const props = defineProps<{ project: Project; unit: PlannedUnit; colours: Record<string, string> }>()
const { tried, send } = useOutbox()
const undo = useUndo()
const kinds = ['stitch', 'raw_width', 'width', 'height'].map((k) => ({
  value: k,
  label: readingWords[k]?.name ?? k,
}))
const kind = ref('stitch')
const lot = ref('1')
/** The lot shown: the last number that was one. What is taken down goes to the one typed, or is refused. */
const shown = ref(1)
watch(lot, (typed) => (shown.value = /^\d{1,4}$/.test(typed.trim()) ? Number(typed) || 1 : shown.value))
const asked = computed(() => ({
  kind: kind.value as 'stitch',
  lot: shown.value,
  units: props.unit.count + props.unit.mirrored,
}))
const { data, error } = useLot(() => props.unit.id, asked)
const plan = computed(() => data.value?.plans[1])
const nth = ref('')
const value = ref('')
/** The same unit a hand further on: what reading adds is halved. */
const again = ref('')
const problem = ref('')
const form = ref<HTMLElement>()
const last = computed(() => Math.max(0, ...(data.value?.rows.map((r) => r.nth) ?? [])))
const next = computed(() => data.value?.next ?? 1)
const typedNth = computed(() => nth.value || String(next.value))
watch([kind, lot], () => (nth.value = ''))

async function take() {
  problem.value = ''
  const nthNow = typedNth.value
  const read = [value.value, again.value].filter((v, n) => !n || v.trim())
  value.value = again.value = nth.value = ''
  form.value?.querySelectorAll('input')[1]?.focus()
  try {
    await Promise.all(read.map((v) => put(v, nthNow)))
  } catch (refusal) {
    if (!(refusal instanceof Refusal)) return
    value.value ||= read[0] ?? ''
    nth.value ||= nthNow
    problem.value = refusal.problem.errors[0]?.message ?? refusal.message
  }
}

const put = (read: string, unit: string) =>
  tried({
    kind: 'put_reading',
    subject: 'units',
    of: props.unit.id,
    reading: crypto.randomUUID(),
    changes: {
      kind: asked.value.kind,
      value: read,
      nth: unit,
      lot: /^0*$/.test(lot.value.trim()) ? '1' : lot.value.trim(),
      ...(asked.value.kind === 'stitch' ? { spot: 'middle' } : {}),
    },
    seen: {},
  })

function remove(r: LotSheet['rows'][number]) {
  const of = { subject: 'units' as const, of: props.unit.id, reading: r.id }
  send({ kind: 'delete_reading', ...of })
  undo(`Unit ${r.nth} was taken out.`, () => send({ kind: 'restore_reading', ...of }))
}

const changed = computed(() => !!data.value && ['jump', 'drift'].includes(data.value.state))
const option = computed(() => {
  const d = data.value!
  return {
    textStyle: font,
    animation: false,
    grid: { left: 108, right: 20, top: 14, bottom: 34 },
    xAxis: {
      type: 'value' as const,
      min: 0,
      max: Math.max(d.units, last.value),
      axisLabel: font,
      splitLine: { show: false },
    },
    yAxis: axisOf(d.ticks),
    series: [
      {
        type: 'line' as const,
        data: d.rows.map((r) => [r.nth, r.off]),
        symbolSize: 10,
        lineStyle: { color: ink.line, width: 1 },
        itemStyle: { color: ink.petrol },
        markLine: {
          symbol: 'none',
          silent: true,
          data: [level(0), level(d.level, ink.petrol, 'dashed')],
        },
        markArea: {
          silent: true,
          itemStyle: { color: 'rgb(168 38 28 / 14%)' },
          data: changed.value ? [[{ xAxis: d.since - 0.5 }, { xAxis: last.value + 0.5 }]] : [],
        },
      },
    ],
  }
})
</script>

<template>
  <main id="main" class="lot">
    <h2 class="visually-hidden">A lot, measured</h2>
    <div class="left">
      <section class="sheet" aria-label="Measure one">
        <p class="what">What is measured</p>
        <SelectInput v-model="kind" labelled="What is measured" :options="kinds" />
        <form ref="form" @submit.prevent="take">
          <LengthInput v-model="lot" label="Lot" numeric />
          <LengthInput v-model="nth" label="Which unit of it" numeric :placeholder="String(next)" />
          <LengthInput v-model="value" label="The ruler reads" :problem="problem" @enter="take" />
          <LengthInput v-model="again" label="And a hand further on" @enter="take" />
          <NButton type="primary" attr-type="submit">Take it down</NButton>
        </form>
        <p v-if="plan">{{ plan.said }}</p>
        <p class="soft">Two places of each unit find a change sooner than one.</p>
        <details v-if="data && !plan?.hopeless">
          <summary>More or less sure</summary>
          <p v-for="p in data.plans" :key="p.certainty" class="soft">{{ p.said }}</p>
          <p class="soft">
            {{
              data.own
                ? 'By your own spread, as your records have it.'
                : 'By what steady hands do: your own records are too short yet.'
            }}
          </p>
        </details>
        <p class="soft">
          What is taken down here counts in
          <RouterLink :to="{ name: 'measure', params: { project: project.id, unit: unit.id } }"
            >Measure</RouterLink
          >
          too.
        </p>
      </section>
    </div>
    <div class="right">
      <WaitingFor v-if="!data && !error" what="this lot" />
      <p v-else-if="!data" class="sheet" role="alert">{{ error?.message }}</p>
      <section v-else class="sheet" aria-label="How the lot goes">
        <p class="said" :class="{ serious: changed }" role="status">{{ data.said }}</p>
        <PlotArea
          v-if="data.rows.length"
          :option="option"
          :height="260"
          label="Units measured, in the order sewn; the table below has the same figures"
        />
        <NTable v-if="data.rows.length" size="small" :bordered="false">
          <thead>
            <tr>
              <th scope="col">Unit</th>
              <th scope="col">Read</th>
              <th scope="col">Beside what is wanted</th>
              <th scope="col"><span class="visually-hidden">Take out</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in data.rows" :key="r.id">
              <td>{{ r.nth }}</td>
              <td class="number">{{ r.value.pretty }}</td>
              <td>{{ r.told }}</td>
              <td>
                <NButton text :aria-label="`Take unit ${r.nth} out`" @click="remove(r)">Take out</NButton>
              </td>
            </tr>
          </tbody>
        </NTable>
      </section>
    </div>
  </main>
</template>

<style scoped>
.lot {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.5fr);
  gap: 14px;
  align-items: start;
}

.what {
  font-stretch: 88%;
  font-weight: 550;
}

form {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px 14px;
  align-items: end;
  margin: 12px 0;
}

.said {
  font-size: 20px;
  font-weight: 600;
  margin-bottom: 8px;
}

details {
  margin: 8px 0;
}

summary {
  cursor: pointer;
  color: var(--petrol);
}

@media (width <= 900px) {
  .lot {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
