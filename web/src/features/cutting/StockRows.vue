<script setup lang="ts">
import FileButton from '@/shared/form/FileButton.vue'
import SelectInput from '@/shared/form/SelectInput.vue'
import { NButton, useMessage } from 'naive-ui'
import { ref } from 'vue'
import { RouterLink } from 'vue-router'

import type { Project, Schemas } from '@/shared/api/client'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'
import { clothWords } from '@/shared/words/words'

import type { Stock } from './api'
import StockRow from './StockRow.vue'

/** What there is of each fabric: entered in a row, changed in place, taken away with undo. */
const props = defineProps<{ project: Project; stock: Stock[] }>()
const { send, typedIn } = useOutbox()
type Edit = { changes: Schemas['StockPatchRequest']; seen: Schemas['StockPatchRequest'] }
const message = useMessage()
const undo = useUndo()
const fresh = ref('')
function add(fabric: string, kind: Stock['kind']) {
  const changes = { kind, count: '1' }
  const stock = crypto.randomUUID()
  fresh.value = stock
  send({ kind: 'put_stock', project: props.project.id, fabric, stock, changes, seen: {} })
}

const put = (fabric: string, stock: string, edit: object) =>
  typedIn({ kind: 'put_stock', project: props.project.id, fabric, stock, ...(edit as Edit) })

/** All of a cloth is free for other projects. */
function shelve(s: Stock) {
  const ids = { project: props.project.id, stock: s.id, count: s.count, rest: crypto.randomUUID() }
  send({ kind: 'shelve_stock', ...ids })
  undo(`${clothWords[s.kind]?.name ?? 'The cloth'} is on the shelf.`, () => {
    send({ kind: 'take_shelf_stock', fabric: s.fabric, ...ids, rest: crypto.randomUUID() })
  })
}

function drop(s: Stock) {
  const project = props.project.id
  send({ kind: 'delete_stock', project, stock: s.id })
  undo(`${clothWords[s.kind]?.name ?? 'The cloth'} was taken away.`, () => {
    send({ kind: 'restore_stock', project, stock: s.id })
  })
}
const prints = [
  { value: 'none', label: 'no direction' },
  { value: 'stripes', label: 'stripes' },
  { value: 'one_way', label: 'one-way print' },
]
const of = (role: string) => props.stock.filter((s) => s.role === role)

function change(fabric: string, changes: Record<string, string>, seen: Record<string, string>) {
  send({ kind: 'change_fabric', project: props.project.id, fabric, changes, seen })
}

/** A photo of the cloth, made small here before it is kept. */
async function photograph(f: Project['fabrics'][number], file: File) {
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
        <SelectInput
          class="print"
          small
          :labelled="`Print of ${f.name}`"
          :model-value="f.direction"
          :options="prints"
          @update:model-value="change(f.id, { direction: $event }, { direction: f.direction })"
        />
      </h3>
      <StockRow
        v-for="s in of(f.role)"
        :key="s.id"
        :stock="s"
        :fabric="f.name"
        :thing="`stock ${s.id}`"
        :fresh="s.id === fresh"
        :put="(edit) => put(f.id, s.id, edit)"
        @drop="drop(s)"
      >
        <NButton text class="quiet" :aria-label="`Put this ${f.name} on the shelf`" @click="shelve(s)"
          >to the shelf</NButton
        >
      </StockRow>
      <div class="adds">
        <FileButton accept="image/*" @file="photograph(f, $event)">
          {{ f.swatch ? 'Another photo' : 'Photo' }}<span class="visually-hidden"> of {{ f.name }}</span>
        </FileButton>
      </div>
      <div class="adds">
        <NButton
          v-for="(w, k) in clothWords"
          :key="k"
          text
          class="quiet"
          @click="add(f.id, k as Stock['kind'])"
        >
          {{ w.name }}<span class="visually-hidden"> of {{ f.name }}</span>
        </NButton>
      </div>
    </div>
    <p class="soft">
      Triangles and units that are cut or sewn already are used before anything is cut. Cloth that this
      project does not need is free for others on the
      <RouterLink :to="{ name: 'shelf' }">shelf</RouterLink>.
    </p>
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
  width: 160px;
  font-weight: 400;
  font-size: 16px;
}

i {
  width: 16px;
  height: 16px;
  border: 1px solid var(--ink);
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
</style>
