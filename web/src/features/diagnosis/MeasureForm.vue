<script setup lang="ts">
import FractionPad from '@/shared/form/FractionPad.vue'
import SelectInput from '@/shared/form/SelectInput.vue'
import { NButton, NInput, NRadio, NRadioGroup } from 'naive-ui'
import { computed, nextTick, onMounted, ref, toRef } from 'vue'

import { useOutbox } from '@/shared/offline/outbox'
import type { Of } from '@/shared/offline/outgoing'
import { spots as spotsOfAny } from '@/shared/words/spots'
import { readingWords } from '@/shared/words/words'

import type { Diagnosis } from './api'
import { useMeasure } from './useMeasure'

/** Where the ruler was laid and what it read. Everything here can be picked on the drawing too. */
const props = defineProps<{ of: Of; found: Diagnosis; focus?: boolean }>()
const places = computed(() => props.found.places)
const measure = useMeasure(toRef(props, 'of'), places)
const {
  where,
  value,
  whole,
  count,
  lands,
  day,
  problem,
  passed,
  last,
  on,
  anyRow,
  kinds,
  features,
  cells,
  corners,
  tips,
  sides,
} = measure
const field = ref<InstanceType<typeof NInput>>()
const wholeField = ref<InstanceType<typeof NInput>>()
const { send } = useOutbox()

const option = (value: string, label: string, disabled = false) => ({ value, label, disabled })
/** What is cut and never trimmed has sizes, and no trimmed ones. */
const isPlain = computed(() => {
  const { batches, cells: laid } = places.value
  const unit = laid.find((c) => c.key === where.value.at_unit)
  const here = unit
    ? batches.find((b) => b.number === unit.batch)
    : batches.find((b) => b.key === where.value.batch)
  return here ? here.plain : batches.every((b) => b.plain)
})
const kindName = (k: string) => (isPlain.value && readingWords[k]?.plain) || (readingWords[k]?.name ?? k)
const kindOptions = computed(() => kinds.value.map((k) => option(k, kindName(k))))
const unitOptions = computed(() => [
  ...(on.value === 'corner' ? [] : [option('', 'any of them, laid or not')]),
  ...cells.value.map((c) => option(c.key, c.name)),
])
const batchOptions = computed(() =>
  places.value.batches.map((b) =>
    option(
      b.key,
      b.name,
      (b.plain && !!readingWords[where.value.kind]?.before_trimming) || (on.value === 'tip' && !b.tips),
    ),
  ),
)
const seamOptions = computed(() => [
  option('', 'any seam'),
  ...places.value.seams.map((s) => option(s.name, s.name)),
])
const spots = computed(() => {
  const seam = places.value.seams.find((s) => s.name === where.value.seam)
  if (!seam) return spotsOfAny
  const ends = seam.upright
    ? ['at its upper end', 'at its lower end']
    : ['at its left end', 'at its right end']
  return [option('start', ends[0]!), option('middle', 'in its middle'), option('end', ends[1]!)]
})
/** What was entered last, where the others do not bear it out: asked about on the spot, kept by one key. */
const doubted = computed(() => props.found.readings.find((r) => r.id === last.value && r.odd && !r.confirmed))

onMounted(() => props.focus && field.value?.focus())

async function onEnter() {
  if (where.value.kind === 'strip_test' && value.value && !whole.value) {
    wholeField.value?.focus()
    return
  }
  const done = measure.enter()
  field.value?.focus()
  await done
  if (problem.value) await nextTick(() => field.value?.select())
}

function step(by: number) {
  const at = kinds.value.indexOf(where.value.kind)
  const next = kinds.value[(at + by + kinds.value.length) % kinds.value.length]
  if (next) measure.pick({ kind: next })
}

function keepIt() {
  if (!doubted.value) return
  send({
    kind: 'put_reading',
    ...props.of,
    reading: doubted.value.id,
    changes: { confirmed: 'true' },
    seen: {},
  })
  field.value?.focus()
}

defineExpose({
  where,
  pick: (change: Parameters<typeof measure.pick>[0]) => {
    measure.pick(change)
    field.value?.focus()
  },
  ask: (a: Parameters<typeof measure.ask>[0]) => {
    measure.ask(a)
    field.value?.focus()
  },
})
</script>

<template>
  <section class="sheet" aria-label="Measure">
    <form @submit.prevent="onEnter" @keydown.f2.prevent="keepIt">
      <div class="where">
        <label class="pair"
          ><span>What</span>
          <SelectInput v-model="where.kind" labelled="What" :options="kindOptions" />
        </label>
        <label v-if="['unit', 'corner', 'tip'].includes(on)" class="pair"
          ><span>Which unit</span>
          <SelectInput v-model="where.at_unit" labelled="Which unit" :options="unitOptions" />
        </label>
        <label v-if="['unit', 'tip'].includes(on) && !where.at_unit && places.batches.length > 1" class="pair"
          ><span>Of which kind</span>
          <SelectInput v-model="where.batch" labelled="Of which kind" :options="batchOptions" />
        </label>
        <label v-if="on === 'corner'" class="pair"
          ><span>Which corner</span>
          <SelectInput
            v-model="where.corner"
            labelled="Which corner"
            :options="corners.map((c) => option(c.corner, c.corner))"
          />
        </label>
        <label v-if="tips.length" class="pair"
          ><span>Which tip</span>
          <SelectInput
            v-model="where.corner"
            labelled="Which tip"
            :options="[option('', 'any of them'), ...tips.map((side) => option(side, side))]"
          />
        </label>
        <template v-if="on === 'seam'">
          <label class="pair"
            ><span>Which seam</span>
            <SelectInput v-model="where.seam" labelled="Which seam" :options="seamOptions" />
          </label>
          <label class="pair"
            ><span>Where along it</span>
            <SelectInput v-model="where.spot" labelled="Where along it" :options="spots" />
          </label>
        </template>
        <label v-if="on === 'feature' && !anyRow" class="pair"
          ><span>Which one</span>
          <SelectInput
            v-model="where.feature"
            labelled="Which one"
            :options="features.map((f) => option(f.key, f.name))"
          />
        </label>
        <label v-if="anyRow" class="pair"
          ><span>Units in the row</span>
          <NInput
            v-model:value="count"
            :placeholder="String(places.cells.length)"
            :input-props="{ 'aria-label': 'Units in the row', inputmode: 'numeric' }"
          />
        </label>
        <label v-if="on === 'seam' || on === 'none'" class="pair"
          ><span>Sewn on</span>
          <NInput
            v-model:value="day"
            placeholder="2026-11-25, if on several days"
            :input-props="{ 'aria-label': 'Sewn on' }"
          />
        </label>
      </div>
      <p v-if="readingWords[where.kind]?.where" class="soft hint">{{ readingWords[where.kind]?.where }}</p>
      <NRadioGroup v-if="sides.length" v-model:value="lands" name="lands" aria-label="On which side">
        <NRadio v-for="s in sides" :key="s.code" :value="s.code">{{ s.said }}</NRadio>
      </NRadioGroup>
      <div class="typed">
        <template v-if="on !== 'seen'">
          <NInput
            ref="field"
            v-model:value="value"
            class="big"
            size="large"
            placeholder="reads"
            :status="problem ? 'error' : undefined"
            :input-props="{
              'aria-label': where.kind === 'strip_test' ? 'Middle strip' : 'The ruler reads',
              'aria-describedby': 'measure-says',
              autocomplete: 'off',
              spellcheck: false,
            }"
            @keydown.up.prevent="step(-1)"
            @keydown.down.prevent="step(1)"
          />
          <FractionPad v-model="value" :label="readingWords[where.kind]?.name ?? 'The ruler reads'" />
          <NInput
            v-if="where.kind === 'strip_test'"
            ref="wholeField"
            v-model:value="whole"
            class="big"
            size="large"
            placeholder="all three"
            :input-props="{ 'aria-label': 'All three strips', autocomplete: 'off' }"
          />
        </template>
        <NButton type="primary" size="large" attr-type="submit">{{
          on === 'seen' ? 'I see this' : 'Take it down'
        }}</NButton>
      </div>
      <p v-for="(said, n) in passed" :key="n" class="serious" role="alert">
        {{ said }}
        <NButton size="small" @click="passed.splice(n, 1)">Leave it out</NButton>
      </p>
      <p v-if="problem" id="measure-says" class="serious" role="alert">{{ problem }}</p>
      <p v-else-if="doubted" id="measure-says" class="doubt" role="alert">
        {{ doubted.odd }}
        <NButton size="small" @click="keepIt">It is right (F2)</NButton>
      </p>
      <p v-else id="measure-says" class="soft hint">3 7/8, 3.875 or 98 mm; ↑ ↓ change what is measured.</p>
    </form>
  </section>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
}

.where {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 6px 12px;
}

.pair {
  display: grid;
  gap: 1px;
}

.typed {
  display: flex;
  gap: 8px;
}

.big {
  font-size: 26px;
  font-weight: 550;
}

.hint {
  line-height: 1.25;
}

.doubt {
  background: #fdf1d2;
  box-shadow: inset 5px 0 0 var(--oilskin);
  padding: 6px 12px;
}
</style>
