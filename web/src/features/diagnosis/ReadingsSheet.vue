<script setup lang="ts">
import { useUndo } from '@/shared/notes/useUndo'
import { NButton, NInput } from 'naive-ui'
import { computed, ref } from 'vue'

import { Refusal, type Schemas } from '@/shared/api/client'
import PastedLines from '@/shared/form/PastedLines.vue'
import { useOutbox, useWaiting } from '@/shared/offline/outbox'
import type { Of } from '@/shared/offline/outgoing'
import { plural, readingWords } from '@/shared/words/words'

import { type Diagnosis, takeLines } from './api'

/** The readings of a subject: changed in place, taken away with undo; odd ones are asked about. */
const props = defineProps<{ of: Of; found: Diagnosis }>()
const { send, tried } = useOutbox()
const waiting = useWaiting()
const unsent = computed(() =>
  waiting.value.filter(
    (o) =>
      o.kind === 'put_reading' &&
      o.of === props.of.of &&
      !props.found.readings.some((r) => r.id === o.reading),
  ),
)
const newest = computed(() => [...props.found.readings].reverse())
const typedOf = (o: object) => (o as { changes: Record<string, string> }).changes
const undo = useUndo()
const editing = ref('')
const typed = ref('')
const problem = ref('')
const what = (r: Schemas['Reading']) => r.said || readingWords[r.kind]?.name || r.kind

async function keep(r: Schemas['Reading']) {
  problem.value = ''
  try {
    await tried({
      kind: 'put_reading',
      ...props.of,
      reading: r.id,
      changes: { value: typed.value },
      seen: { value: r.text },
    })
    editing.value = ''
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    problem.value = error.problem.errors[0]?.message ?? error.message
  }
}

function edit(r: Schemas['Reading']) {
  editing.value = r.id
  typed.value = r.text
  problem.value = ''
}

const pasting = ref(false)
const taking = (text: string) => takeLines(props.of, text)

const confirm = (r: Schemas['Reading'], yes: string) =>
  send({ kind: 'put_reading', ...props.of, reading: r.id, changes: { confirmed: yes }, seen: {} })

function remove(id: string, name: string) {
  send({ kind: 'delete_reading', ...props.of, reading: id })
  undo(`${name} was deleted.`, () => {
    send({ kind: 'restore_reading', ...props.of, reading: id })
  })
}
</script>

<template>
  <section class="sheet" aria-label="Readings">
    <div class="head">
      <h3>Readings</h3>
      <span class="acts">
        <NButton text @click="pasting = !pasting">Paste CSV</NButton>
        <a class="quiet" :href="`/api/${of.subject}/${of.of}/readings.csv`" download>Save as CSV</a>
      </span>
    </div>
    <PastedLines
      v-if="pasting"
      columns="One reading a line: kind, value, whole, count, batch, at_unit, corner, seam, spot, feature, lands, day, note, as “Save as CSV” writes them. What does not fit may be left out."
      :kept="`readings ${of.of}`"
      :take="taking"
      :behind="['diagnosis', 'working']"
    />
    <p v-if="found.elsewhere" class="soft">
      {{ plural(found.elsewhere, 'reading') }} taken elsewhere in this project
      {{ found.elsewhere === 1 ? 'counts' : 'count' }} here too: seams of the same machine, units of the same
      kind.
    </p>
    <p v-if="!newest.length && !found.misplaced.length && !unsent.length" class="soft">
      None here yet. Two units, a row and a seam on the back are enough for a first judgement.
    </p>
    <ul>
      <li v-for="(o, i) in unsent" :key="`u${i}`" class="unsent">
        <span class="what">{{ readingWords[typedOf(o).kind ?? '']?.name }}</span>
        <span class="number">{{ typedOf(o).value }}</span>
        <span class="soft">kept here, not sent yet</span>
      </li>
      <li v-for="r in newest" :key="r.id" :class="{ odd: r.odd }">
        <span class="what"
          >{{ what(r) }}<small v-if="r.lands" class="soft">, {{ r.lands }}</small
          ><small v-if="r.note" class="soft">, {{ r.note }}</small></span
        >
        <form v-if="editing === r.id" @submit.prevent="keep(r)" @keydown.esc="editing = ''">
          <NInput v-model:value="typed" size="small" :input-props="{ 'aria-label': `${what(r)} reads` }" />
          <NButton size="small" attr-type="submit" type="primary">Keep</NButton>
          <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
        </form>
        <span v-else class="figures"
          ><strong class="number">{{ r.pretty || 'seen' }}</strong>
          <small v-if="r.which" class="soft"
            ><template v-if="r.should && r.kind !== 'strip_test'">of {{ r.should }}, </template
            >{{ r.which }}</small
          ></span
        >
        <span class="acts">
          <NButton
            v-if="r.text && r.kind !== 'strip_test'"
            text
            :aria-label="`Edit ${what(r)} ${r.text}`"
            @click="edit(r)"
            >Edit</NButton
          >
          <NButton text :aria-label="`Delete ${what(r)} ${r.text}`" @click="remove(r.id, what(r))"
            >Delete</NButton
          >
        </span>
        <p v-if="r.odd" class="serious">
          Set aside: {{ r.odd }} <NButton text @click="confirm(r, 'true')">It is right</NButton>
        </p>
        <p v-else-if="r.confirmed" class="soft">
          Read twice, it stands. <NButton text @click="confirm(r, '')">Ask about it again</NButton>
        </p>
      </li>
      <li v-if="found.earlier" class="soft">and {{ found.earlier }} earlier ones</li>
      <li v-for="m in found.misplaced" :key="m.id" class="odd">
        <span class="what">{{ readingWords[m.kind]?.name }}</span>
        <span />
        <span class="acts"
          ><NButton text @click="remove(m.id, readingWords[m.kind]?.name ?? '')">Delete</NButton></span
        >
        <p class="serious">Not used: {{ m.why }}</p>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 104px;
  gap: 2px 12px;
  padding: 4px 8px;
  align-items: center;
  line-height: 1.2;
}

li + li {
  border-top: 1px solid var(--steel-mid);
}

.head {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}

.odd {
  background: #fdf1d2;
  box-shadow: inset 5px 0 0 var(--oilskin);
}

.what::first-letter {
  text-transform: uppercase;
}

p {
  grid-column: 1 / -1;
}

form {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

.figures {
  display: grid;
  text-align: right;
}

small {
  font-size: 16px;
}

.acts {
  display: flex;
  gap: 12px;
  justify-content: flex-end;
}
</style>
