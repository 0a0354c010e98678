<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { usePreference } from '@/shared/offline/preference'
import { NButton, NInput, NInputNumber, NSelect } from 'naive-ui'
import { computed, nextTick, ref, watch } from 'vue'

import { api, Refusal, type Schemas, taken } from '@/shared/api/client'
import { kindWords, readingWords } from '@/shared/words/words'

import { type Asked, byHand, type Diagnosis } from './api'
import HandLine from './HandLine.vue'
import RemedyList from './RemedyList.vue'
import VerdictPanel from './VerdictPanel.vue'
import WorkingSheet from './WorkingSheet.vue'

/** Sizes and readings typed by hand, with no project: nothing is kept but in this browser. */
const props = defineProps<{ measure: string[] }>()
const kinds = computed(() => {
  const rest = [
    'cut',
    'raw_width',
    'width',
    'height',
    'miss',
    'clearance',
    'stitch',
    'strip_test',
    'row',
  ].filter((k) => !props.measure.includes(k))
  return [...props.measure.filter((k) => k !== 'crossing'), ...rest]
})
const { data: room } = useQuery({
  queryKey: ['workroom'],
  queryFn: () => taken(api.GET('/api/workroom')),
})
/** Read as this workroom measures; inches may be typed with their mark all the same. */
const measureIn = computed(() => room.value?.measure ?? 'in')
interface Line {
  /** Counted up, so that a line keeps its fields when one is put above it. */
  id: number
  kind: string
  value: string
  whole: string
  /** Of a seam; lines of before had none. */
  spot?: string
  /** It came by itself, or as the next reading, and goes again if nothing is typed. */
  offered?: boolean
}
let lineCount = 0
const lineOf = (kind: string): Line => ({ id: lineCount++, kind, value: '', whole: '' })
const kindOptions = Object.entries(kindWords).map(([value, w]) => ({ value, label: w.name }))
const usual = props.measure.includes('clearance') ? 'flying_goose' : 'half_square_triangle'
const fresh = () => ({
  kind: usual,
  finished: '3 1/2″',
  units: 4,
  seam_allowance: '1/4″',
  lines: [] as Line[],
})
const sizes = [
  ['finished', 'Finished'],
  ['seam_allowance', 'Seam allowance'],
] as const
/** Begun afresh each time; what was typed the last time is a press away. */
const typed = ref(fresh())
const last = usePreference('by-hand', fresh())
function takeUp() {
  typed.value = JSON.parse(JSON.stringify(last.value)) as ReturnType<typeof fresh>
  for (const line of typed.value.lines) line.id = lineCount++
}
const isBegun = (t: ReturnType<typeof fresh>) => JSON.stringify(t) !== JSON.stringify(fresh())
// Sizes alone do not push out readings that may still be taken up.
const worthMore = (now: ReturnType<typeof fresh>) => now.lines.length || !last.value.lines.length
watch(typed, (now) => worthMore(now) && (last.value = JSON.parse(JSON.stringify(now))), { deep: true })
const lines = computed(() => typed.value.lines)
const form = ref<HTMLFormElement>()
function add(kind: string) {
  for (let n = lines.value.length - 1; n >= 0; n--) {
    const offered = lines.value[n]!
    if (offered.offered && !offered.value.trim()) takeAway(n)
  }
  const line = lineOf(kind)
  lines.value.push(line)
  void typeIn(line)
}

/** The next reading has a line of its own, at its spot. */
function take(next: Asked) {
  add(next.kind)
  Object.assign(lines.value.at(-1)!, { spot: next.spot || undefined, offered: true })
}

/** A line that was just added takes the keyboard. */
async function typeIn(line: Line) {
  await nextTick()
  form.value?.querySelector<HTMLInputElement>(`[data-line="${line.id}"] input`)?.focus()
}

/** What was typed is judged with the rest, and one more like it may be typed at once. */
async function goOn(n: number) {
  const line = lines.value[n]!
  if (line.value.trim()) {
    let below = lines.value[n + 1]
    if (below?.kind !== line.kind || below.value.trim()) {
      below = { ...lineOf(line.kind), spot: line.spot, offered: true }
      lines.value.splice(n + 1, 0, below)
    }
    await typeIn(below)
  }
  await judge()
}
const found = ref<Diagnosis>()
/** What the verdict on screen was judged from, whatever is typed meanwhile. */
const judged = ref<Schemas['ByHandRequest']>()
const problems = ref<Record<string, string>>({})

/** What was refused stays beside its own line. */
function takeAway(n: number) {
  typed.value.lines.splice(n, 1)
  const left = Object.entries(problems.value).filter(([field]) => field !== `line ${n}`)
  problems.value = Object.fromEntries(
    left.map(([field, said]) => {
      const at = /^line (\d+)$/.exec(field)
      return [at && +at[1]! > n ? `line ${+at[1]! - 1}` : field, said]
    }),
  )
}

function readingFields(line: Line): Record<string, string | number> {
  const fields: Record<string, string | number> = { kind: line.kind, value: line.value }
  if (line.kind === 'strip_test') fields.whole = line.whole
  if (line.kind === 'stitch') fields.spot = line.spot ?? 'middle'
  return fields
}

async function judge() {
  problems.value = {}
  const filled = lines.value.map((line, n) => ({ line, n })).filter((x) => x.line.value.trim())
  const body: Schemas['ByHandRequest'] = {
    measure: measureIn.value,
    kind: typed.value.kind as Schemas['ByHandRequest']['kind'],
    finished: typed.value.finished,
    units: typed.value.units,
    seam_allowance: typed.value.seam_allowance,
    factor: 4,
    readings: filled.map((x) => readingFields(x.line)),
  }
  try {
    found.value = await byHand(body)
    judged.value = body
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    for (const e of error.problem.errors) {
      const line = /^readings\.(\d+)$/.exec(e.field)
      problems.value[line ? `line ${filled[+line[1]!]?.n}` : e.field] = e.message
    }
  }
}
</script>

<template>
  <div class="by-hand">
    <section class="sheet hand" aria-label="By hand">
      <h2>Judge it here, without a project</h2>
      <p v-if="isBegun(last) && !isBegun(typed)">
        <NButton size="small" @click="takeUp">Take up what was typed last</NButton>
      </p>
      <form ref="form" @submit.prevent="judge">
        <div class="sizes">
          <label
            >Units
            <NSelect
              v-model:value="typed.kind"
              class="kind"
              :options="kindOptions"
              :input-props="{ 'aria-label': 'Units' }"
          /></label>
          <label v-for="[field, title] in sizes" :key="field"
            >{{ title }}
            <NInput
              v-model:value="typed[field]"
              class="size"
              :status="problems[field] ? 'error' : undefined"
              :input-props="{ 'aria-label': title }"
          /></label>
          <label
            >Units in a row
            <NInputNumber
              v-model:value="typed.units"
              class="size"
              :min="2"
              :max="20"
              :input-props="{ 'aria-label': 'Units in a row' }"
          /></label>
        </div>
        <template v-for="f in ['finished', 'seam_allowance', 'units']" :key="f">
          <p v-if="problems[f]" class="serious" role="alert">{{ problems[f] }}</p>
        </template>
        <HandLine
          v-for="(line, n) in lines"
          :key="line.id"
          v-model:value="line.value"
          v-model:whole="line.whole"
          v-model:spot="line.spot"
          :kind="line.kind"
          :n="n"
          :problem="problems[`line ${n}`]"
          :data-line="line.id"
          @away="takeAway(n)"
          @next="goOn(n)"
        />
        <p v-if="lines.length" class="soft">Enter takes a reading down and asks for one more like it.</p>
        <div class="adds">
          <NButton v-for="k in kinds" :key="k" size="small" @click="add(k)">
            + {{ readingWords[k]?.name }}
          </NButton>
        </div>
        <NButton class="go" type="primary" attr-type="submit">Judge these readings</NButton>
      </form>
    </section>
    <div class="says">
      <p v-if="!found" class="on-dark">What the readings say stands here, once some are taken down.</p>
      <template v-else>
        <VerdictPanel class="stands" :found="found" by-hand @ask="take" />
        <RemedyList
          title="These units"
          undrawn
          :remedies="found.this_block"
          none="Nothing to do to what is sewn."
        />
        <RemedyList
          title="The rest of the batch"
          batch
          :remedies="found.the_batch"
          none="Change nothing: no cause is sure enough, or none is needed."
        />
      </template>
    </div>
    <WorkingSheet v-if="found && judged" class="working" :found="found" :of="judged" />
  </div>
</template>

<style scoped>
.by-hand {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}

.says {
  display: grid;
  gap: 16px;
  position: sticky;
  top: 12px;
}

.on-dark {
  color: var(--chalk);
}

.working {
  grid-column: 1 / -1;
}

@media (width <= 1000px) {
  .by-hand {
    grid-template-columns: minmax(0, 1fr);
  }

  .says {
    position: static;
  }
}

/* On a tablet the lines outgrow the screen: the verdict stays at its foot until they end, and no field that takes the keyboard under it. */
@media (width <= 1000px) and (height >= 900px) {
  .by-hand {
    display: flex;
    flex-direction: column;
    align-items: stretch;
  }

  .says {
    display: contents;
  }

  .stands {
    position: sticky;
    bottom: 0;
    z-index: 2;
    box-shadow: 0 0 0 2px var(--oilskin);
  }

  .hand :deep(input),
  .hand :deep(button) {
    scroll-margin-bottom: 300px;
  }
}

form {
  display: grid;
  gap: 8px;
  margin-top: 8px;
}

.sizes {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 20px;
}

label {
  display: flex;
  gap: 8px;
  align-items: center;
}

.size {
  width: 120px;
}

.kind {
  width: 220px;
}

.adds {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
}

.go {
  justify-self: start;
}
</style>
