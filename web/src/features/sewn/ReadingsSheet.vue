<script setup lang="ts">
import { NButton, useMessage } from 'naive-ui'
import { useQueryClient } from '@tanstack/vue-query'
import { h, ref } from 'vue'

import { Refusal, type Schemas } from '@/shared/api/client'
import { useOutbox } from '@/shared/api/outbox'
import { sewnReadingWords } from '@/shared/lib/words'

import { type Sewn, takeLines } from './api'

/** The readings of a block: changed in place, taken away with undo; odd ones are asked about. */
const props = defineProps<{ block: string; sewn: Sewn }>()
const { send, tried } = useOutbox()
const message = useMessage()
const editing = ref('')
const typed = ref('')
const problem = ref('')
const what = (r: Schemas['Measured']) => r.said || sewnReadingWords[r.kind]?.name || r.kind

async function keep(r: Schemas['Measured']) {
  problem.value = ''
  try {
    await tried({
      kind: 'put_measured',
      block: props.block,
      measured: r.id,
      changes: { value: typed.value },
      seen: { value: r.text },
    })
    editing.value = ''
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    problem.value = error.problem.errors[0]?.message ?? error.message
  }
}

function edit(r: Schemas['Measured']) {
  editing.value = r.id
  typed.value = r.text
  problem.value = ''
}

const pasting = ref(false)
const lines = ref('')
const said = ref('')
const client = useQueryClient()

/** What was refused stays in the box to be put right; what went in leaves it. */
async function take() {
  try {
    const done = await takeLines(props.block, lines.value)
    const all = lines.value.split(/\r\n|\r|\n/)
    lines.value = done.refused.map((r) => all[r.line - 1] ?? r.text).join('\n')
    const first = done.refused[0]
    said.value = `${done.added} taken in${first ? `; ${done.refused.length} not, the first: ${first.reason}` : '.'}`
    await client.invalidateQueries({ queryKey: ['sewn', props.block] })
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    said.value = error.message
  }
}

const confirm = (r: Schemas['Measured']) =>
  send({ kind: 'put_measured', block: props.block, measured: r.id, changes: { confirmed: 'true' }, seen: {} })

function remove(id: string, name: string) {
  send({ kind: 'delete_measured', block: props.block, measured: id })
  const note = message.info(
    () =>
      h('span', [
        `${name} was deleted. `,
        h(
          NButton,
          {
            size: 'small',
            onClick: () => {
              send({ kind: 'restore_measured', block: props.block, measured: id })
              note.destroy()
            },
          },
          () => 'Undo',
        ),
      ]),
    { duration: 15_000, closable: true },
  )
}
</script>

<template>
  <section class="sheet" aria-label="Readings">
    <div class="head">
      <h3>Readings</h3>
      <span class="acts">
        <button type="button" class="quiet" @click="pasting = !pasting">Paste CSV</button>
        <a class="quiet" :href="`/api/blocks/${block}/measured.csv`" download>Save as CSV</a>
      </span>
    </div>
    <form v-if="pasting" class="paste" @submit.prevent="take">
      <label :for="`lines-${block}`" class="soft">
        One reading a line: kind, value, whole, batch, cell, corner, seam, spot, feature, day, note, as “Save
        as CSV” writes them.
      </label>
      <textarea :id="`lines-${block}`" v-model="lines" rows="5" />
      <p v-if="said" role="status">{{ said }}</p>
      <NButton size="small" type="primary" attr-type="submit">Take them in</NButton>
    </form>
    <p v-if="!sewn.readings.length && !sewn.misplaced.length" class="soft">None yet.</p>
    <ul>
      <li v-for="r in sewn.readings.slice(-200)" :key="r.id" :class="{ odd: r.odd }">
        <span class="what">{{ what(r) }}</span>
        <form v-if="editing === r.id" @submit.prevent="keep(r)" @keydown.esc="editing = ''">
          <input v-model="typed" :aria-label="`${what(r)} reads`" />
          <NButton size="small" attr-type="submit" type="primary">Keep</NButton>
          <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
        </form>
        <strong v-else class="number">{{ r.pretty || 'seen' }}</strong>
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
          {{ r.odd }} <button type="button" class="quiet" @click="confirm(r)">It is right</button>
        </p>
      </li>
      <li v-if="sewn.readings.length > 200" class="soft">
        and {{ sewn.readings.length - 200 }} earlier ones
      </li>
      <li v-for="m in sewn.misplaced" :key="m.id" class="odd">
        <span class="what">{{ sewnReadingWords[m.kind]?.name }}</span>
        <span class="acts"
          ><NButton text @click="remove(m.id, sewnReadingWords[m.kind]?.name ?? '')">Delete</NButton></span
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

.paste {
  display: grid;
  gap: 6px;
  margin: 6px 0;
}

.paste textarea {
  font: inherit;
  width: 100%;
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

input {
  font: inherit;
  width: 100px;
  padding: 2px 8px;
}

.acts {
  display: flex;
  gap: 12px;
  justify-content: flex-end;
}
</style>
