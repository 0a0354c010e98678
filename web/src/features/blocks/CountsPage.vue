<script setup lang="ts">
import SelectInput from '@/shared/form/SelectInput.vue'
import { NButton, NTable } from 'naive-ui'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'

import { useKinds } from '@/features/projects'
import type { Project, Schemas } from '@/shared/api/client'
import { useFields } from '@/shared/offline/fields'
import { useOutbox } from '@/shared/offline/outbox'
import { kindWords, methodWords, plural, schoolWords } from '@/shared/words/words'
import LengthInput from '@/shared/form/LengthInput.vue'

import { type Sheet, useCounts } from './api'
import CountedRow from './CountedRow.vue'

/** Every unit of every block, by kind, size, fabrics and hand, with how each kind is made. */
const props = defineProps<{ project: Project; sheet: Sheet; colours: Record<string, string> }>()
const { data } = useCounts(() => props.project.id)
const { data: kinds } = useKinds()
const { send, typedIn } = useOutbox()
const toPlan = computed(() => ({
  name: 'project',
  params: { project: props.project.id, stage: 'plan' },
}))

const fields = ['spare_percent', 'spare_number'] as const
type Field = (typeof fields)[number]
const {
  typed: spares,
  problems,
  save: spare,
} = useFields(
  () => Object.fromEntries(fields.map((f) => [f, String(data.value?.[f] ?? '')])) as Record<Field, string>,
  {
    thing: () => `quilt ${props.project.id}`,
    flat: (c) => Object.fromEntries(Object.entries(c).filter(([f]) => fields.includes(f as Field))),
  },
  ({ changes }) => typedIn({ kind: 'change_quilt', project: props.project.id, changes, seen: {} }),
)

function change(changes: Record<string, unknown>) {
  send({ kind: 'change_quilt', project: props.project.id, changes, seen: {} })
}

const byKind = computed(() => {
  const found = new Map<string, Schemas['Counted'][]>()
  for (const u of data.value?.units ?? []) found.set(u.kind, [...(found.get(u.kind) ?? []), u])
  return [...found]
})
const methods = (kind: string) => kinds.value?.find((k) => k.name === kind)?.methods ?? []
const plain = (kind: string) => kinds.value?.find((k) => k.name === kind)?.parts.length === 1
const making = (kind: string) => data.value?.makings[kind] ?? { method: '', school: 'little' }
/** What all units of a kind have in common; nothing when they differ, since each may be set in the plan. */
function common(units: Schemas['Counted'][], field: 'method' | 'school') {
  const all = new Set(units.map((u) => u[field]))
  return all.size === 1 ? [...all][0]! : ''
}
const schools = ['exact', 'little', 'generous', 'records']

function make(kind: string, choice: Record<string, string>) {
  change({ makings: { ...data.value?.makings, [kind]: { ...making(kind), ...choice } } })
}
</script>

<template>
  <main id="main" class="counts">
    <section class="sheet head">
      <div>
        <h2>Counts</h2>
        <p v-if="data && !data.refusal">
          {{ plural(data.total, 'unit') }} for {{ plural(data.blocks, 'block') }}; {{ data.cloth }} of cloth
          to cut for them.
        </p>
        <p v-if="data?.refusal" class="serious" role="alert">{{ data.refusal.message }}</p>
        <p v-if="data && data.units.length" class="soft">
          They stand in the plan with these numbers and follow every change of the blocks.
        </p>
      </div>
      <div class="spares" @focusout="spare(...fields)">
        <LengthInput
          v-model="spares.spare_percent"
          label="Spares in a hundred"
          numeric
          :problem="problems.spare_percent"
          @enter="spare('spare_percent')"
        />
        <LengthInput
          v-model="spares.spare_number"
          label="or at least"
          numeric
          :problem="problems.spare_number"
          @enter="spare('spare_number')"
        />
      </div>
      <RouterLink v-if="data?.units.length" v-slot="{ navigate, href }" custom :to="toPlan">
        <NButton type="primary" tag="a" :href="href" @click="navigate">See them in the plan</NButton>
      </RouterLink>
    </section>
    <section v-for="[kind, units] in byKind" :key="kind" class="sheet" :aria-label="kindWords[kind]?.name">
      <div class="kind">
        <h3>{{ kindWords[kind]?.name }}</h3>
        <template v-if="!plain(kind)">
          <div>
            made by
            <SelectInput
              small
              labelled="made by"
              :model-value="common(units, 'method')"
              placeholder="several ways"
              :options="methods(kind).map((m) => ({ value: m, label: methodWords(kind, m).name }))"
              @update:model-value="make(kind, { method: $event })"
            />
          </div>
          <div>
            oversize
            <SelectInput
              small
              labelled="oversize"
              :model-value="common(units, 'school')"
              placeholder="several"
              :options="schools.map((s) => ({ value: s, label: schoolWords[s]?.name ?? s }))"
              @update:model-value="make(kind, { school: $event })"
            />
          </div>
        </template>
      </div>
      <div class="scroll">
        <NTable size="small" :bordered="false">
          <thead>
            <tr>
              <th scope="col">Unit</th>
              <th scope="col">Fabrics</th>
              <th scope="col">Wanted</th>
              <th scope="col">Made</th>
              <th scope="col">Cut</th>
            </tr>
          </thead>
          <tbody>
            <CountedRow
              v-for="(u, i) in units"
              :key="i"
              :unit="u"
              :fabrics="project.fabrics"
              :colours="colours"
            />
          </tbody>
        </NTable>
      </div>
    </section>
  </main>
</template>

<style scoped>
.counts {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}

.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 14px 30px;
}

.spares {
  display: grid;
  grid-template-columns: 160px 130px;
  gap: 12px;
}

.kind {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 26px;
  align-items: center;
  margin-bottom: 8px;
}

.kind > div {
  display: flex;
  gap: 8px;
  align-items: center;
}

.kind :deep(.n-select) {
  width: 220px;
}

.scroll {
  overflow-x: auto;
}

table {
  width: 100%;
  min-width: 820px;
  table-layout: fixed;
  border-collapse: collapse;
  line-height: 1.3;
}

th {
  text-align: left;
  font-weight: 600;
  font-stretch: 88%;
  padding: 0 14px 4px 0;
}
</style>
