<script setup lang="ts">
import { NButton, useMessage } from 'naive-ui'
import { computed, h, nextTick, ref } from 'vue'

import type { Schemas } from '@/shared/api/client'
import { useOutbox, useWaiting } from '@/shared/api/outbox'
import { readingWords } from '@/shared/lib/words'

type Reading = Schemas['Reading']
const props = defineProps<{ unit: string; readings: Reading[] }>()
const emit = defineEmits<{ light: [string | null] }>()

const { send } = useOutbox()
const message = useMessage()
const editing = ref<string | null>(null)
const typed = ref({ value: '', whole: '', row_units: '' })

const waiting = useWaiting()
const unsent = computed(() =>
  waiting.value.filter(
    (o) =>
      o.kind === 'put_reading' && o.unit === props.unit && !props.readings.some((r) => r.id === o.reading),
  ),
)
const newest = computed(() => [...props.readings].reverse())
const what = (r: Reading) =>
  r.kind === 'row_length' ? `Row of ${r.row_units}` : (readingWords[r.kind]?.name ?? r.kind)
const typedOf = (o: object) => (o as { changes: Record<string, string> }).changes

async function edit(r: Reading) {
  editing.value = r.id
  typed.value = {
    value: r.value.text,
    whole: r.whole?.text ?? '',
    row_units: r.row_units === null ? '' : String(r.row_units),
  }
  await nextTick()
  document.querySelector<HTMLInputElement>(`#edit-${CSS.escape(r.id)}`)?.select()
}

function keep(r: Reading) {
  editing.value = null
  const was = {
    value: r.value.text,
    whole: r.whole?.text ?? '',
    row_units: r.row_units === null ? '' : String(r.row_units),
  }
  const fields = (['value', 'whole', 'row_units'] as const).filter((f) => typed.value[f] !== was[f])
  if (!fields.length) return
  send({
    kind: 'put_reading',
    unit: props.unit,
    reading: r.id,
    changes: Object.fromEntries(fields.map((f) => [f, typed.value[f]])),
    seen: Object.fromEntries(fields.map((f) => [f, was[f]])),
  })
}

function remove(r: Reading) {
  send({ kind: 'delete_reading', unit: props.unit, reading: r.id })
  const note = message.info(
    () =>
      h('span', [
        `${what(r)} ${r.value.pretty} was deleted. `,
        h(
          NButton,
          {
            size: 'small',
            onClick: () => {
              send({ kind: 'restore_reading', unit: props.unit, reading: r.id })
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
  <p v-if="!readings.length && !unsent.length" class="soft">
    None yet. Measure two or three trimmed units, one joined row and a seam on the back; that is enough for a
    first judgement.
  </p>
  <table v-else>
    <thead>
      <tr>
        <th scope="col">Reading</th>
        <th scope="col">Reads</th>
        <th scope="col">Should read</th>
        <th scope="col">Which is</th>
        <th scope="col"><span class="visually-hidden">Change</span></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(o, i) in unsent" :key="`u${i}`" class="unsent">
        <td>{{ readingWords[typedOf(o).kind ?? '']?.name }}</td>
        <td class="number">{{ typedOf(o).value }}</td>
        <td colspan="3">kept here, not sent yet</td>
      </tr>
      <tr
        v-for="r in newest"
        :key="r.id"
        @mouseenter="emit('light', r.id)"
        @mouseleave="emit('light', null)"
        @focusin="emit('light', r.id)"
        @focusout="emit('light', null)"
      >
        <td>
          {{ what(r)
          }}<template v-if="r.note"
            ><small class="soft">, {{ r.note }}</small></template
          >
        </td>
        <td v-if="editing === r.id" colspan="3">
          <form class="edit" @submit.prevent="keep(r)" @keydown.esc="editing = null">
            <input :id="`edit-${r.id}`" v-model="typed.value" aria-label="The ruler reads" />
            <input v-if="r.kind === 'strip_test'" v-model="typed.whole" aria-label="All three strips" />
            <input v-if="r.kind === 'row_length'" v-model="typed.row_units" aria-label="Units in the row" />
            <NButton size="small" attr-type="submit" type="primary">Keep</NButton>
            <NButton size="small" @click="editing = null">Leave it</NButton>
          </form>
        </td>
        <template v-else>
          <td class="number">
            {{ r.value.pretty }}<template v-if="r.whole"> of {{ r.whole.pretty }}</template>
          </td>
          <td>
            <template v-if="r.kind === 'strip_test'"
              >takes up {{ r.read.pretty }}, should {{ r.target.pretty }}</template
            >
            <template v-else>{{ r.target.pretty }}</template>
          </td>
          <td class="said" :class="{ off: r.off }">
            <i aria-hidden="true">{{ r.off ? '◆' : '●' }}</i> {{ r.said }}
          </td>
        </template>
        <td>
          <div class="acts">
            <NButton text :aria-label="`Edit ${what(r)} ${r.value.text}`" @click="edit(r)">Edit</NButton>
            <NButton text :aria-label="`Delete ${what(r)} ${r.value.text}`" @click="remove(r)"
              >Delete</NButton
            >
          </div>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  margin-top: 6px;
}

th,
td {
  text-align: left;
  padding: 4px 12px 4px 0;
}

th {
  font-weight: 550;
  font-stretch: 88%;
  border-bottom: 2px dashed var(--steel-line);
}

tbody tr + tr td {
  border-top: 1px solid var(--steel-mid);
}

tbody tr:hover {
  background: #eef3f4;
}

.said.off {
  font-weight: 600;
}

.said i {
  font-style: normal;
  font-size: 16px;
  color: var(--petrol);
}

.said.off i {
  color: var(--oilskin-deep);
}

.unsent {
  background: #fdf1d2;
}

.acts {
  display: flex;
  gap: 16px;
  justify-content: flex-end;
}

.edit {
  display: flex;
  gap: 8px;
}

.edit input {
  font: inherit;
  width: 110px;
  padding: 2px 8px;
}

small {
  font-size: 16px;
}

@media (width <= 560px) {
  .acts,
  .edit {
    flex-wrap: wrap;
    gap: 4px 12px;
  }

  th,
  td {
    padding-right: 8px;
  }
}
</style>
