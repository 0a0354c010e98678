<script setup lang="ts">
import SelectInput from '@/shared/form/SelectInput.vue'
import { useDebounceFn } from '@vueuse/core'
import { NButton, NInput } from 'naive-ui'
import { reactive, watch } from 'vue'

import type { Project, Schemas } from '@/shared/api/client'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'

const props = defineProps<{ project: Project }>()
const { send } = useOutbox()
const undo = useUndo()
type Fabric = Schemas['Fabric']
type Field = 'name' | 'colour' | 'value'

const typed = reactive<Record<string, Record<Field, string>>>({})
const pick = (f: Fabric) => ({ name: f.name, colour: f.colour, value: f.value as string })
const base: Record<string, Record<Field, string>> = {}

watch(
  () => props.project.fabrics,
  (fabrics) => {
    for (const f of fabrics) {
      const now = pick(f)
      const mine = typed[f.id]
      const was = base[f.id]
      typed[f.id] = mine && was ? merged(mine, was, now) : { ...now }
      base[f.id] = now
    }
  },
  { immediate: true },
)

function merged(mine: Record<Field, string>, was: Record<Field, string>, now: Record<Field, string>) {
  const out = { ...now }
  for (const k of Object.keys(out) as Field[]) if (mine[k] !== was[k]) out[k] = mine[k]
  return out
}

/** What differs from what the server has goes out at once; while a name is typed, a moment after the last key. */
function save(id: string) {
  const mine = typed[id]
  const was = base[id]
  if (!mine || !was) return
  const fields = (Object.keys(mine) as Field[]).filter(
    (k) => mine[k] !== was[k] && (k !== 'name' || mine[k].trim()),
  )
  if (!fields.length) return
  const changes = Object.fromEntries(fields.map((k) => [k, mine[k]]))
  const seen = Object.fromEntries(fields.map((k) => [k, was[k]]))
  base[id] = { ...was, ...(changes as Record<Field, string>) }
  send({ kind: 'change_fabric', project: props.project.id, fabric: id, changes, seen })
}
const saveSoon = useDebounceFn(save, 400)

const values = ['light', 'medium', 'dark'].map((v) => ({ value: v, label: v }))
const used = (role: string) => props.project.units.some((u) => u.part_fabrics.includes(role))

function another() {
  const fabric = crypto.randomUUID()
  send({ kind: 'put_fabric', project: props.project.id, fabric, changes: {}, seen: {} })
}

function drop(f: Fabric) {
  const project = props.project.id
  send({ kind: 'delete_fabric', project, fabric: f.id })
  undo(`${f.name} was removed.`, () => {
    const { role, name, colour, value, direction, swatch } = f
    const changes = { role, name, colour, value, direction, swatch }
    send({ kind: 'put_fabric', project, fabric: f.id, changes, seen: {} })
  })
}

function set(id: string, field: Field, value: string) {
  const row = typed[id]
  if (row) row[field] = value
}
</script>

<template>
  <div class="fabrics" role="group" aria-label="Fabrics">
    <div v-for="f in project.fabrics" :key="f.id" class="fabric">
      <input
        type="color"
        :value="typed[f.id]?.colour"
        :aria-label="`Colour of fabric ${f.role.toUpperCase()}`"
        @input="set(f.id, 'colour', ($event.target as HTMLInputElement).value)"
        @change="save(f.id)"
      />
      <NInput
        :value="typed[f.id]?.name"
        :maxlength="80"
        :input-props="{ 'aria-label': `Name of fabric ${f.role.toUpperCase()}` }"
        @update:value="(set(f.id, 'name', $event), saveSoon(f.id))"
        @blur="save(f.id)"
      />
      <SelectInput
        :labelled="`Value of fabric ${f.role.toUpperCase()}`"
        :model-value="typed[f.id]?.value ?? 'medium'"
        :options="values"
        @update:model-value="(set(f.id, 'value', $event), save(f.id))"
      />
      <NButton
        v-if="project.fabrics.length > 1"
        text
        class="drop"
        :aria-label="`Remove fabric ${f.name}`"
        :disabled="used(f.role)"
        :title="used(f.role) ? 'a unit is made of it' : undefined"
        @click="drop(f)"
      >
        ×
      </NButton>
    </div>
    <NButton text class="more" @click="another">Another fabric</NButton>
  </div>
</template>

<style scoped>
.fabrics {
  display: grid;
  gap: 8px;
}

.fabric {
  display: grid;
  grid-template-columns: 40px minmax(0, 1fr) 112px 22px;
  gap: 8px;
}

input[type='color'] {
  width: 40px;
  height: 40px;
  padding: 0;
  border: 1px solid var(--ink);
  background: none;
}

.drop {
  font-size: 22px;
}

.more {
  justify-self: start;
  border-bottom: 2px dashed var(--steel-line);
}
</style>
