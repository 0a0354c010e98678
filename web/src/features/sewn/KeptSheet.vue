<script setup lang="ts">
import { reactive } from 'vue'

import type { Schemas } from '@/shared/api/client'
import { useOutbox } from '@/shared/api/outbox'

/** Diagnoses as they were said, beside what turned out later. */
const props = defineProps<{ block: string; kept: Schemas['Kept'][]; status: string }>()
const { send } = useOutbox()
const later = reactive<Record<string, string>>({})
const outcomes = [
  ['', 'not known yet'],
  ['right', 'it was right'],
  ['partly', 'partly right'],
  ['wrong', 'it was wrong'],
] as const
const day = (iso: string) =>
  new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' })
const keepNow = () => send({ kind: 'keep_diagnosis', block: props.block, kept: crypto.randomUUID() })

function change(k: Schemas['Kept'], changes: Record<string, unknown>, seen: Record<string, unknown>) {
  send({ kind: 'change_kept', block: props.block, kept: k.id, changes, seen })
}

function note(k: Schemas['Kept']) {
  const text = later[k.id]
  if (text !== undefined && text !== k.later) change(k, { later: text }, { later: k.later })
}
const print = () => window.print()
const right = (n: string) => props.kept.filter((k) => k.turned_out === n).length
</script>

<template>
  <section class="sheet" aria-label="Kept">
    <div class="head">
      <h3>Kept diagnoses</h3>
      <span class="acts">
        <button type="button" class="quiet" :disabled="status === 'no_readings'" @click="keepNow">
          Keep this one
        </button>
        <button type="button" class="quiet" @click="print">Print this page</button>
      </span>
    </div>
    <p v-if="!kept.length" class="soft">
      None yet. Keep one before you unpick; later, say here whether it was right.
    </p>
    <p v-else-if="kept.some((k) => k.turned_out)" class="soft">
      So far {{ right('right') }} right, {{ right('partly') }} partly, {{ right('wrong') }} wrong.
    </p>
    <article v-for="k in kept" :key="k.id">
      <p>
        <strong>{{ day(k.kept_at) }}: {{ k.said.causes[0] ?? 'nothing said' }}</strong>
        <span class="soft">
          {{ k.said.status === 'unsettled' ? 'not settled' : k.said.status }}, by
          {{ k.said.readings.length }} readings. Advised: {{ k.said.this_block[0] ?? 'nothing' }}.</span
        >
      </p>
      <div class="after">
        <label>
          What turned out
          <select
            :value="k.turned_out"
            @change="
              change(
                k,
                { turned_out: ($event.target as HTMLSelectElement).value },
                { turned_out: k.turned_out },
              )
            "
          >
            <option v-for="[value, name] in outcomes" :key="value" :value="value">{{ name }}</option>
          </select>
        </label>
        <label>
          What it was
          <input
            :value="later[k.id] ?? k.later"
            @input="later[k.id] = ($event.target as HTMLInputElement).value"
            @change="note(k)"
          />
        </label>
        <button type="button" class="quiet" @click="change(k, { deleted: true }, {})">Take it away</button>
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
  gap: 16px;
}

article {
  border-top: 1px solid var(--steel-mid);
  padding: 8px 0;
}

label {
  display: flex;
  gap: 8px;
  align-items: center;
}

input,
select {
  font: inherit;
  padding: 2px 8px;
  border: 1px solid var(--steel-line);
  border-radius: 3px;
}
</style>
