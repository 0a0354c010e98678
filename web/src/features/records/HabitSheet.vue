<script setup lang="ts">
import { NButton, NTable } from 'naive-ui'
import { computed, ref } from 'vue'

import { font, ink, level, axisOf } from '@/shared/drawing/axes'
import PlotArea from '@/shared/drawing/PlotArea.vue'
import { useOutbox } from '@/shared/offline/outbox'
import { plural } from '@/shared/words/words'

import type { Habit, Hands } from './api'
import { dayWords } from '@/shared/words/days'

/** One habit in words, as a run over time and as a distribution; the same figures in a table. */
const props = defineProps<{ habit: Habit; hands: Hands }>()
const { send } = useOutbox()
const table = ref(false)
const time = (day: string) => new Date(`${day}T12:00:00`).getTime()

const run = computed(() => {
  const h = props.habit
  return {
    textStyle: font,
    animation: false,
    grid: { left: 108, right: 30, top: 48, bottom: 30 },
    tooltip: {
      trigger: 'item' as const,
      renderMode: 'richText' as const,
      formatter: (p: { dataIndex: number; componentType: string; name: string }) => {
        const point = h.run[p.dataIndex]
        return p.componentType === 'series' && point
          ? `${dayWords(point.day)}\n${point.told}, ${plural(point.count, 'reading')}\n${props.hands.names[point.set_up] ?? ''}`
          : p.name
      },
    },
    xAxis: {
      type: 'time' as const,
      minInterval: 86_400_000,
      axisLine: { onZero: false },
      axisLabel: { ...font, hideOverlap: true, formatter: '{d} {MMM}' },
      splitLine: { show: false },
    },
    yAxis: axisOf(h.ticks),
    series: [
      {
        type: 'custom' as const,
        silent: true,
        data: h.run.map((p) => [time(p.day), p.least, p.most]),
        renderItem: (_: unknown, at: { value: (n: number) => number; coord: (p: number[]) => number[] }) => {
          const [x, low] = at.coord([at.value(0), at.value(1)])
          const high = at.coord([at.value(0), at.value(2)])[1]
          return {
            type: 'line' as const,
            shape: { x1: x, x2: x, y1: low, y2: high },
            style: { stroke: ink.line, lineWidth: 3 },
          }
        },
      },
      {
        type: 'line' as const,
        data: h.run.map((p) => [time(p.day), p.mean]),
        symbolSize: 8,
        lineStyle: { color: ink.line, width: 1 },
        itemStyle: { color: ink.petrol },
        markLine: {
          symbol: 'none',
          silent: true,
          data: [
            level(0),
            level(h.mean, ink.petrol, 'dashed'),
            ...props.hands.changes.map((c, n) => ({
              xAxis: time(c.day),
              name: c.name,
              lineStyle: { color: ink.warm, type: 'dotted' as const, width: 2 },
              label: {
                ...font,
                formatter: c.name.split(', ').at(-1),
                position: 'end' as const,
                distance: 12 + (n % 2) * 19,
              },
            })),
          ],
        },
        markArea: {
          silent: true,
          itemStyle: { color: 'rgb(21 94 104 / 12%)' },
          data: [[{ yAxis: h.low }, { yAxis: h.high }]],
        },
      },
    ],
  }
})

const spread = computed(() => ({
  textStyle: font,
  animation: false,
  grid: { left: 34, right: 8, top: 10, bottom: 30 },
  xAxis: {
    type: 'category' as const,
    data: props.habit.bars.map((b) => b.text),
    axisLabel: { ...font, hideOverlap: true },
  },
  yAxis: { type: 'value' as const, minInterval: 1, axisLabel: font, splitLine: { show: false } },
  series: [
    {
      type: 'bar' as const,
      data: props.habit.bars.map((b) => b.count),
      itemStyle: { color: ink.petrol },
      barCategoryGap: '12%',
    },
    {
      type: 'line' as const,
      data: props.habit.bars.map((b) => b.expected),
      smooth: true,
      symbol: 'none',
      lineStyle: { color: ink.gold, width: 3 },
    },
  ],
}))
const days = computed(() => [...props.habit.run].reverse())
</script>

<template>
  <section class="sheet" :aria-label="habit.title">
    <div class="head">
      <h2>{{ habit.title }}</h2>
      <p class="soft">{{ habit.sure }}, from {{ plural(habit.readings, 'reading') }}</p>
    </div>
    <p class="said">{{ habit.said }}</p>
    <p>{{ habit.spread }}</p>
    <template v-if="habit.run.length">
      <div class="plots">
        <div>
          <h3>Over time</h3>
          <PlotArea :option="run" :label="`${habit.title} over time; the table below has the same figures`" />
        </div>
        <div v-if="habit.bars.length">
          <h3>How they spread</h3>
          <PlotArea
            :option="spread"
            :label="`${habit.title}: how readings spread; bars are what was read, the line what is usual`"
          />
        </div>
      </div>
      <p class="soft key">
        Points are days, upright lines run from their least to their most; the band holds the mean nine times
        in ten, dotted lines are changes of machine. The yellow line is how steady hands would spread.
      </p>
      <NButton text class="quiet" :aria-expanded="table" @click="table = !table">{{
        table ? 'Put the table away' : 'Day by day in a table'
      }}</NButton>
      <NTable v-if="table" size="small" :bordered="false">
        <thead>
          <tr>
            <th scope="col">Day</th>
            <th scope="col">Readings</th>
            <th scope="col">On the whole</th>
            <th scope="col">Machine</th>
            <th scope="col"><span class="visually-hidden">Leave out</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in days" :key="`${p.day} ${p.set_up}`">
            <td>{{ dayWords(p.day) }}</td>
            <td>{{ p.count }}</td>
            <td>{{ p.told }}</td>
            <td>{{ hands.names[p.set_up] ?? '' }}</td>
            <td>
              <NButton
                text
                :aria-label="`Leave ${dayWords(p.day)} out`"
                @click="send({ kind: 'leave_day_out', day: p.day })"
                >Leave the day out</NButton
              >
            </td>
          </tr>
        </tbody>
      </NTable>
    </template>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 4px 20px;
  align-items: baseline;
}

.said {
  font-size: 20px;
  font-weight: 600;
  margin: 6px 0 2px;
}

.plots {
  display: grid;
  grid-template-columns: minmax(0, 1.7fr) minmax(0, 1fr);
  gap: 10px 24px;
  margin-top: 10px;
}

h3 {
  margin-bottom: 2px;
}

.key {
  margin: 6px 0;
}

@media (width <= 900px) {
  .plots {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
