<script setup lang="ts">
import { NButton, NInput, NSelect } from 'naive-ui'
import { reactive } from 'vue'

import type { Schemas } from '@/shared/api/client'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'
import type { Of } from '@/shared/offline/outgoing'
import { dayWords } from '@/shared/words/days'

/** Diagnoses as they were said, beside what turned out later. */
const props = defineProps<{ of: Of; saved: Schemas['Saved'][]; status: string }>()
const { send } = useOutbox()
const undo = useUndo()
const later = reactive<Record<string, string>>({})
const outcomes = [
  { value: '', label: 'not known yet' },
  { value: 'right', label: 'it was right' },
  { value: 'partly', label: 'partly right' },
  { value: 'wrong', label: 'it was wrong' },
]
const keepNow = () => send({ kind: 'save_diagnosis', ...props.of, saved: crypto.randomUUID() })

function change(k: Schemas['Saved'], changes: Record<string, unknown>, seen: Record<string, unknown>) {
  send({ kind: 'change_saved', ...props.of, saved: k.id, changes, seen })
}

function takeAway(k: Schemas['Saved']) {
  change(k, { deleted: true }, {})
  undo(`The diagnosis of ${dayWords(k.saved_at)} was taken away.`, () => change(k, { deleted: false }, {}))
}

function note(k: Schemas['Saved']) {
  const text = later[k.id]
  if (text !== undefined && text !== k.later) change(k, { later: text }, { later: k.later })
}
const print = () => window.print()
const right = (n: string) => props.saved.filter((k) => k.turned_out === n).length
</script>

<template>
  <section class="sheet" aria-label="Kept">
    <div class="head">
      <h3>Kept diagnoses</h3>
      <span class="acts">
        <NButton size="small" :disabled="status === 'no_readings'" @click="keepNow">Keep this one</NButton>
        <NButton size="small" @click="print">Print this page</NButton>
      </span>
    </div>
    <p v-if="!saved.length" class="soft">
      None yet. Keep one before you unpick; later, say here whether it was right.
    </p>
    <p v-else-if="saved.some((k) => k.turned_out)" class="soft">
      So far {{ right('right') }} right, {{ right('partly') }} partly, {{ right('wrong') }} wrong.
    </p>
    <article v-for="k in saved" :key="k.id">
      <p>
        <strong>{{ dayWords(k.saved_at) }}: {{ k.said.headline || 'nothing said' }}</strong>
        <span class="soft">
          By {{ k.said.readings.length }} readings. Advised: {{ k.said.this_block[0] ?? 'nothing' }}.</span
        >
      </p>
      <div class="after">
        <label class="pair">
          <span>What turned out</span>
          <NSelect
            :value="k.turned_out"
            :options="outcomes"
            :input-props="{ 'aria-label': 'What turned out' }"
            filterable
            @update:value="(v: string) => change(k, { turned_out: v }, { turned_out: k.turned_out })"
          />
        </label>
        <label class="pair wide">
          <span>What it was</span>
          <NInput
            :value="later[k.id] ?? k.later"
            :input-props="{ 'aria-label': 'What it was' }"
            @update:value="(v: string) => (later[k.id] = v)"
            @change="note(k)"
          />
        </label>
        <NButton text @click="takeAway(k)">Take it away</NButton>
      </div>
    </article>
  </section>
</template>

<style scoped>
.head,
.after {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 18px;
  justify-content: space-between;
  align-items: center;
}

.acts {
  display: flex;
  gap: 12px;
}

article {
  border-top: 1px solid var(--steel-mid);
  padding: 8px 0;
}

.pair {
  display: grid;
  grid-template-columns: auto minmax(150px, 1fr);
  gap: 8px;
  align-items: center;
}

.wide {
  flex: 1;
}
</style>
