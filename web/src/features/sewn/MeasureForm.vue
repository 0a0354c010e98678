<script setup lang="ts">
import { nextTick, ref, toRef } from 'vue'

import { sewnReadingWords } from '@/shared/lib/words'

import type { Sewn } from './api'
import { useMeasure } from './useMeasure'

/** Where the ruler was laid and what it read. Everything here can be picked on the drawing too. */
const props = defineProps<{ block: string; places: Sewn['places'] }>()
const measure = useMeasure(toRef(props, 'block'), toRef(props, 'places'))
const { where, value, whole, day, problem, on, kinds, features, cells, corners } = measure
const field = ref<HTMLInputElement>()

async function enter() {
  await measure.enter()
  await nextTick()
  field.value?.focus()
  if (problem.value) field.value?.select()
}
const byHand = (kind: string) => ['cut', 'raw_width', 'raw_height'].includes(kind)
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
    <h3>Measure</h3>
    <form @submit.prevent="enter">
      <label>
        What
        <select v-model="where.kind" aria-label="What">
          <option v-for="k in kinds" :key="k" :value="k">{{ sewnReadingWords[k]?.name }}</option>
        </select>
      </label>
      <label v-if="['unit', 'corner', 'tip'].includes(on)">
        Which unit
        <select v-model.number="where.cell" aria-label="Which unit">
          <option v-if="on === 'unit'" :value="-1">one not yet joined</option>
          <option v-for="c in cells" :key="c.number" :value="c.number">{{ c.name }}</option>
        </select>
      </label>
      <label v-if="on === 'unit' && where.cell < 0">
        Of which kind
        <select v-model.number="where.batch" aria-label="Of which kind">
          <option
            v-for="b in places.batches"
            :key="b.number"
            :value="b.number"
            :disabled="b.plain && byHand(where.kind)"
          >
            {{ b.name }}
          </option>
        </select>
      </label>
      <label v-if="on === 'corner'">
        Which corner
        <select v-model="where.corner" aria-label="Which corner">
          <option v-for="c in corners" :key="c" :value="c">{{ c }}</option>
        </select>
      </label>
      <template v-if="on === 'seam'">
        <label>
          Which seam
          <select v-model.number="where.seam" aria-label="Which seam">
            <option :value="-1">any seam</option>
            <option v-for="s in places.seams" :key="s.number" :value="s.number">{{ s.name }}</option>
          </select>
        </label>
        <label>
          Where along it
          <select v-model="where.spot" aria-label="Where along it">
            <option value="start">at its start (top or left)</option>
            <option value="middle">in its middle</option>
            <option value="end">at its end</option>
          </select>
        </label>
      </template>
      <label v-if="on === 'feature'">
        Which one
        <select v-model="where.feature" aria-label="Which one">
          <option v-for="f in features" :key="f.key" :value="f.key">{{ f.name }}</option>
        </select>
      </label>
      <label v-if="on === 'seam' || on === 'none'">
        Sewn on (if on several days)
        <input v-model="day" type="date" />
      </label>
      <p v-if="sewnReadingWords[where.kind]?.where" class="soft hint">
        {{ sewnReadingWords[where.kind]?.where }}
      </p>
      <div v-if="on !== 'seen'" class="typed">
        <label>
          {{ where.kind === 'strip_test' ? 'Middle strip' : 'The ruler reads' }}
          <input
            ref="field"
            v-model="value"
            class="big"
            autocomplete="off"
            spellcheck="false"
            :aria-invalid="!!problem"
            aria-describedby="measure-says"
          />
        </label>
        <label v-if="where.kind === 'strip_test'">
          All three
          <input v-model="whole" class="big" autocomplete="off" spellcheck="false" />
        </label>
      </div>
      <p v-if="problem" id="measure-says" class="serious" role="alert">{{ problem }}</p>
      <p v-else id="measure-says" class="soft hint">
        Write 3 7/8, 3.875 or 98 mm; −1/32 where it lies the other way.
      </p>
      <button type="submit">{{ on === 'seen' ? 'I see this' : 'Take it down' }}</button>
    </form>
  </section>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
  margin-top: 6px;
}

label {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  align-items: center;
  gap: 8px;
}

.typed label {
  grid-template-columns: 150px minmax(0, 1fr);
}

.typed {
  display: grid;
  gap: 6px;
}

select,
input {
  font: inherit;
  color: var(--ink);
  background: #fff;
  border: 1px solid var(--steel-line);
  border-radius: 3px;
  padding: 3px 8px;
  min-width: 0;
  width: 100%;
}

.big {
  font-size: 28px;
  font-weight: 550;
}

.hint {
  line-height: 1.25;
}

input[aria-invalid='true'] {
  border: 2px solid var(--buoy);
}

button {
  font: inherit;
  font-weight: 600;
  padding: 8px;
  border: 0;
  border-radius: 3px;
  background: var(--petrol);
  color: #fff;
  cursor: pointer;
}
</style>
