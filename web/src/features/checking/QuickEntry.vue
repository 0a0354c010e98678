<script setup lang="ts">
import { computed, nextTick, onMounted, ref, toRef } from 'vue'

import type { Schemas } from '@/shared/api/client'
import { readingWords } from '@/shared/lib/words'

import { useEntry } from './useEntry'

const props = defineProps<{ unit: string; targets: Schemas['Target'][] }>()
const entry = useEntry(toRef(props, 'unit'), toRef(props, 'targets'))
const { kind, value, whole, count, problem, target } = entry
const field = ref<HTMLInputElement>()
const wholeField = ref<HTMLInputElement>()

const words = computed(() => readingWords[kind.value])
const problemAt = (f: string) => (problem.value?.field === f ? problem.value.message : undefined)
const other = computed(() =>
  problem.value && !['value', 'whole', 'row_units'].includes(problem.value.field)
    ? problem.value.message
    : undefined,
)

onMounted(() => field.value?.focus())

async function onEnter() {
  if (kind.value === 'strip_test' && value.value && !whole.value) {
    wholeField.value?.focus()
    return
  }
  const done = entry.enter()
  field.value?.focus()
  await done
  if (problem.value) await nextTick(() => field.value?.select())
}

function choose(k: Schemas['Target']['kind']) {
  kind.value = k
  problem.value = null
  field.value?.focus()
}
</script>

<template>
  <section class="sheet entry" aria-label="Quick entry">
    <fieldset>
      <legend>What was measured</legend>
      <label v-for="t in targets" :key="t.kind" :class="{ on: t.kind === kind }">
        <input type="radio" name="kind" :value="t.kind" :checked="t.kind === kind" @change="choose(t.kind)" />
        <span>{{ readingWords[t.kind]?.name }}</span>
        <span class="target">{{ t.kind === 'strip_test' ? '' : t.target.pretty }}</span>
      </label>
    </fieldset>
    <form @submit.prevent="onEnter">
      <p class="soft">{{ words?.where }}</p>
      <label v-if="kind === 'row_length'" class="count">
        Units in the row
        <input v-model="count" inputmode="numeric" :aria-invalid="!!problemAt('row_units')" />
      </label>
      <p v-if="problemAt('row_units')" class="problem" role="alert">{{ problemAt('row_units') }}</p>
      <label for="reading">{{ kind === 'strip_test' ? 'Middle strip' : 'The ruler reads' }}</label>
      <input
        id="reading"
        ref="field"
        v-model="value"
        class="big"
        autocomplete="off"
        spellcheck="false"
        :aria-invalid="!!problemAt('value')"
        aria-describedby="entry-help"
        @keydown.up.prevent="entry.step(-1)"
        @keydown.down.prevent="entry.step(1)"
      />
      <template v-if="kind === 'strip_test'">
        <label for="whole">All three strips</label>
        <input
          id="whole"
          ref="wholeField"
          v-model="whole"
          class="big"
          autocomplete="off"
          spellcheck="false"
        />
      </template>
      <p v-if="problemAt('value') ?? problemAt('whole') ?? other" class="problem" role="alert">
        {{ problemAt('value') ?? problemAt('whole') ?? other }}
      </p>
      <p id="entry-help" class="soft">
        <template v-if="target && kind !== 'strip_test'">Should read {{ target.target.pretty }}. </template>
        Type and press Enter; ↑ ↓ change what is measured. Write 3 7/8, 3.875 or 98 mm.
      </p>
      <button type="submit">Take it down</button>
    </form>
  </section>
</template>

<style scoped>
.entry,
form {
  display: grid;
  gap: 8px;
}

fieldset {
  border: 0;
  padding: 0 0 8px;
  margin: 0;
  border-bottom: 2px dashed var(--steel-line);
}

legend {
  padding: 0;
  font-weight: 600;
  font-size: 17px;
  margin-bottom: 4px;
}

fieldset label {
  position: relative;
  display: flex;
  justify-content: space-between;
  padding: 5px 10px;
  cursor: pointer;
  border-left: 5px solid transparent;
}

fieldset label.on {
  background: #fdf1d2;
  border-left-color: var(--oilskin);
  font-weight: 600;
}

fieldset label:has(:focus-visible) {
  outline: 3px solid var(--oilskin);
}

input {
  font: inherit;
  color: var(--ink);
  background: #fff;
  border: 1px solid var(--steel-line);
  border-radius: 3px;
  padding: 4px 10px;
  width: 100%;
}

fieldset input {
  position: absolute;
  inset: 0;
  margin: 0;
  opacity: 0;
  cursor: pointer;
}

input[aria-invalid='true'] {
  border: 2px solid var(--buoy);
}

.big {
  font-size: 34px;
  font-weight: 550;
}

.count {
  display: grid;
  grid-template-columns: 1fr 80px;
  align-items: center;
}

.problem {
  color: var(--buoy);
}

button {
  font: inherit;
  font-weight: 600;
  padding: 9px;
  border: 0;
  border-radius: 3px;
  background: var(--petrol);
  color: #fff;
  cursor: pointer;
}
</style>
