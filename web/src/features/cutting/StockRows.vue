<script setup lang="ts">
import { NButton, useMessage } from 'naive-ui'
import { h, reactive, watch } from 'vue'

import { type Project, Refusal } from '@/shared/api/client'
import { useOutbox } from '@/shared/api/outbox'
import { clothWords } from '@/shared/lib/words'

import type { Stock } from './api'

/** What there is of each fabric: entered in a row, changed in place, taken away with undo. */
const props = defineProps<{ project: Project; stock: Stock[] }>()
const { send, tried } = useOutbox()
const message = useMessage()
type Field = 'kind' | 'across' | 'along' | 'count' | 'name'
type Row = Record<Field, string>

const kept = (s: Stock): Row => ({
  kind: s.kind,
  across: s.across.text,
  along: s.along.text,
  count: String(s.count),
  name: s.name,
})
const typed = reactive<Record<string, Row>>({})
const base = reactive<Record<string, Row>>({})
const problems = reactive<Record<string, string>>({})
watch(
  () => props.stock,
  (rows) => {
    for (const s of rows) {
      const now = kept(s)
      const row = (typed[s.id] ??= { ...now })
      const old = base[s.id]
      for (const f of Object.keys(now) as Field[]) if (!old || row[f] === old[f]) row[f] = now[f]
      base[s.id] = now
    }
  },
  { immediate: true },
)

async function save(s: Stock, field: Field) {
  const row = typed[s.id]!
  if (row[field] === base[s.id]![field]) return delete problems[s.id]
  try {
    const changes = { [field]: row[field] }
    const seen = { [field]: base[s.id]![field] }
    await tried({
      kind: 'put_stock',
      project: props.project.id,
      fabric: s.fabric,
      stock: s.id,
      changes,
      seen,
    })
    delete problems[s.id]
  } catch (error) {
    if (error instanceof Refusal) problems[s.id] = error.problem.errors[0]?.message ?? error.message
  }
}

function add(fabric: string, kind: string) {
  const usual = clothWords[kind]!
  const changes = { kind, across: usual.across, along: usual.along, count: '1' }
  const stock = crypto.randomUUID()
  send({ kind: 'put_stock', project: props.project.id, fabric, stock, changes, seen: {} })
}

function drop(s: Stock) {
  const project = props.project.id
  send({ kind: 'delete_stock', project, stock: s.id })
  const note = message.info(
    () =>
      h('span', [
        `${clothWords[s.kind]?.name ?? 'The cloth'} was taken away. `,
        h(
          NButton,
          {
            size: 'small',
            onClick: () => {
              send({ kind: 'restore_stock', project, stock: s.id })
              note.destroy()
            },
          },
          () => 'Undo',
        ),
      ]),
    { duration: 15_000, closable: true },
  )
}
const of = (role: string) => props.stock.filter((s) => s.role === role)

function change(fabric: string, changes: Record<string, string>, seen: Record<string, string>) {
  send({ kind: 'change_fabric', project: props.project.id, fabric, changes, seen })
}

/** A photo of the cloth, made small here before it is kept. */
async function photograph(f: Project['fabrics'][number], e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  try {
    const picture = await createImageBitmap(file)
    const side = Math.min(picture.width, picture.height)
    const canvas = document.createElement('canvas')
    canvas.width = canvas.height = 120
    const x = (picture.width - side) / 2
    const y = (picture.height - side) / 2
    canvas.getContext('2d')!.drawImage(picture, x, y, side, side, 0, 0, 120, 120)
    change(f.id, { swatch: canvas.toDataURL('image/jpeg', 0.8) }, { swatch: f.swatch })
  } catch {
    message.error('This file is no photo that can be shown here. Choose a JPEG or PNG.')
  }
}
</script>

<template>
  <section class="sheet" aria-label="Stock">
    <h2>In stock</h2>
    <div v-for="f in project.fabrics" :key="f.id" class="fabric">
      <h3>
        <img v-if="f.swatch" :src="f.swatch" :alt="`Swatch of ${f.name}`" width="44" height="44" />
        <i v-else :style="{ background: f.colour }" aria-hidden="true" /> {{ f.name }}
        <label class="print">
          <span class="visually-hidden">Print of {{ f.name }}</span>
          <select
            :value="f.direction"
            @change="
              change(
                f.id,
                { direction: ($event.target as HTMLSelectElement).value },
                { direction: f.direction },
              )
            "
          >
            <option value="none">no direction</option>
            <option value="stripes">stripes</option>
            <option value="one_way">one-way print</option>
          </select>
        </label>
      </h3>
      <div v-for="s in of(f.role)" :key="s.id" class="cloth">
        <input
          v-model="typed[s.id]!.count"
          class="count"
          inputmode="numeric"
          :aria-label="`How many, ${f.name}`"
          @change="save(s, 'count')"
        />
        <select
          v-model="typed[s.id]!.kind"
          :aria-label="`Kind of cloth, ${f.name}`"
          @change="save(s, 'kind')"
        >
          <option v-for="(w, k) in clothWords" :key="k" :value="k">{{ w.name }}</option>
        </select>
        <input
          v-model="typed[s.id]!.across"
          :aria-label="`Across, ${f.name}`"
          @change="save(s, 'across')"
          @keydown.enter="save(s, 'across')"
        />
        <span aria-hidden="true">×</span>
        <input
          v-model="typed[s.id]!.along"
          :aria-label="`Along, ${f.name}`"
          @change="save(s, 'along')"
          @keydown.enter="save(s, 'along')"
        />
        <button type="button" class="drop" :aria-label="`Take this ${f.name} away`" @click="drop(s)">
          ×
        </button>
        <p v-if="typed[s.id]!.name" class="soft named">{{ typed[s.id]!.name }}</p>
        <p v-if="problems[s.id]" class="serious named" role="alert">{{ problems[s.id] }}</p>
      </div>
      <div class="adds">
        <label class="quiet photo">
          {{ f.swatch ? 'Another photo' : 'Photo' }}<span class="visually-hidden"> of {{ f.name }}</span>
          <input type="file" accept="image/*" class="visually-hidden" @change="photograph(f, $event)" />
        </label>
        <label>
          <span class="visually-hidden">Scale of the print of {{ f.name }}</span>
          <select
            :value="f.scale"
            @change="change(f.id, { scale: ($event.target as HTMLSelectElement).value }, { scale: f.scale })"
          >
            <option value="small">small print</option>
            <option value="medium">medium print</option>
            <option value="large">large print</option>
          </select>
        </label>
      </div>
      <div class="adds">
        <button
          v-for="(w, k) in clothWords"
          :key="k"
          type="button"
          class="quiet"
          @click="add(f.id, String(k))"
        >
          {{ w.name }}<span class="visually-hidden"> of {{ f.name }}</span>
        </button>
      </div>
    </div>
    <p class="soft">Across is the usable width, selvedges cut off; along runs with them.</p>
  </section>
</template>

<style scoped>
.fabric {
  padding: 8px 0;
  border-bottom: 2px dashed var(--steel-mid);
}

h3 {
  display: flex;
  gap: 8px;
  align-items: center;
}

.print {
  margin-left: auto;
  font-weight: 400;
  font-size: 16px;
}

i {
  width: 16px;
  height: 16px;
  border: 1px solid var(--ink);
}

.cloth {
  display: grid;
  grid-template-columns: 46px minmax(0, 1fr) 78px 10px 78px 20px;
  gap: 6px;
  align-items: center;
  margin-top: 6px;
}

input {
  font: inherit;
  height: 36px;
  min-width: 0;
  padding: 0 6px;
  border: 1px solid var(--steel-line);
  border-radius: 3px;
}

.named {
  grid-column: 1 / -1;
  line-height: 1.2;
}

.adds {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  margin-top: 8px;
}

h3 img {
  border: 1px solid var(--ink);
}

.photo {
  align-self: center;
}

.photo:focus-within {
  outline: 3px solid var(--oilskin);
}

.drop {
  font: inherit;
  font-size: 22px;
  padding: 0;
  color: var(--petrol);
  background: none;
  border: 0;
  cursor: pointer;
}
</style>
