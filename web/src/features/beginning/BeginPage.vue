<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import { useLibrary } from '@/features/blocks'
import { useKinds } from '@/features/projects'
import { api, Refusal, type Schemas, taken } from '@/shared/api/client'
import UnitPicture from '@/shared/drawing/UnitPicture.vue'
import Choice from '@/shared/form/Choice.vue'
import LengthInput from '@/shared/form/LengthInput.vue'
import LabelledSelect from '@/shared/form/LabelledSelect.vue'
import SelectInput from '@/shared/form/SelectInput.vue'
import { plainColours } from '@/shared/lib/colours'
import { useOutbox } from '@/shared/offline/outbox'
import { useForm } from '@/shared/offline/typed'
import { kindWords } from '@/shared/words/words'

import StripField from './StripField.vue'

/** What a project begins with, on one page: one unit, a block, or a quilt of a block. */
const { tried } = useOutbox()
const router = useRouter()
const { data: library } = useLibrary()
const { data: kinds } = useKinds()
const { data: room } = useQuery({ queryKey: ['workroom'], queryFn: () => taken(api.GET('/api/workroom')) })

const ways = [
  { value: 'unit', label: 'one unit' },
  { value: 'block', label: 'a block' },
  { value: 'quilt', label: 'a quilt' },
]
const bys = [
  { value: 'number', label: 'so many blocks' },
  { value: 'size', label: 'about so large' },
]
const { typed, hand } = useForm('new project', () => ({
  with: 'quilt' as 'unit' | 'block' | 'quilt',
  by: 'number',
  name: '',
  kind: 'half_square_triangle' as Schemas['KindEnum'],
  unitFinished: '',
  unitCount: '',
  start: '',
  finished: '',
  count: '',
  wide: '',
  high: '',
  sash: '',
  sashFabric: '',
  border: '',
  borderFabric: '',
  fabrics: [] as string[],
}))
const letters = 'abcdefghijkl'

const kindOptions = computed(() =>
  (kinds.value ?? []).map((k) => ({ value: k.name, label: kindWords[k.name]?.name ?? k.name })),
)
const blockOptions = computed(() => (library.value ?? []).map((b) => ({ value: b.key, label: b.name })))
const kind = computed(() => kinds.value?.find((k) => k.name === typed.kind))
const block = computed(() => library.value?.find((b) => b.key === typed.start))
const shown = computed(() => (typed.with === 'unit' ? kind.value?.picture : block.value?.picture))
/** Fabrics that what is chosen is made of: those in its picture, and one for the sashing. */
const needed = computed(() => {
  const used = new Set(shown.value?.marks.map((m) => m.fabric).filter((f) => letters.includes(f)))
  const last = Math.max(...[...used].map((f) => letters.indexOf(f) + 1), 1)
  return Math.min(letters.length, last + (typed.with === 'quilt' && typed.sash.trim() ? 1 : 0))
})
/** A row for each that is needed, at least two, for each that was asked for or named, and for all before it. */
const more = ref(0)
const fabrics = computed(() => {
  const rows = Math.max(shown.value ? needed.value : 2, more.value, typed.fabrics.length)
  return Array.from({ length: rows }, (_, n) => typed.fabrics[n] ?? '')
})
function nameFabric(n: number, name: string) {
  const names = fabrics.value.map((was, k) => (k === n ? name : was))
  while (names.length && !names[names.length - 1]) names.pop()
  typed.fabrics = names
}
const fabricOptions = computed(() =>
  fabrics.value.map((name, n) => ({
    value: letters[n]!,
    label: name.trim() || `Fabric ${letters[n]!.toUpperCase()}`,
  })),
)
/** Sashing is of the last fabric until another is chosen. */
const lastFabric = computed(() => letters[fabrics.value.length - 1] ?? 'a')
const sashFabric = computed({
  get: () => typed.sashFabric || lastFabric.value,
  set: (role) => (typed.sashFabric = role),
})
const borderFabric = computed({
  get: () => typed.borderFabric || 'a',
  set: (role) => (typed.borderFabric = role),
})
const colours = computed(() => plainColours)
const example = computed(() =>
  room.value?.measure === 'mm'
    ? { unit: '90 mm', block: '300 mm', sash: '50 mm', border: '100 mm', wide: '1500 mm', high: '1800 mm' }
    : { unit: '3 1/2', block: '12', sash: '2', border: '4', wide: '60', high: '72' },
)

const problems = ref<Record<string, string>>({})
const problem = ref('')
const busy = ref(false)

function body() {
  const unit = { kind: typed.kind, finished: typed.unitFinished, count: typed.unitCount }
  if (typed.with === 'unit') return { unit }
  const made = { start: typed.start, finished: typed.finished, count: typed.count }
  if (typed.with === 'block') return { block: made }
  const large = typed.by === 'size'
  const quilt = {
    wide: large ? typed.wide : '',
    high: large ? typed.high : '',
    ...(typed.sash.trim() ? { sash: typed.sash, sash_fabric: sashFabric.value } : {}),
    ...(typed.border.trim() ? { borders: [{ width: typed.border, fabric: borderFabric.value }] } : {}),
  }
  return { block: large ? { ...made, count: '' } : made, quilt }
}

async function begin() {
  if (busy.value) return
  problems.value = {}
  problem.value = ''
  if (typed.with !== 'unit' && !typed.start)
    return void (problems.value = { start: 'Choose which block it is made of.' })
  if (typed.with === 'quilt' && typed.by === 'size' && !(typed.wide.trim() || typed.high.trim()))
    return void (problems.value = { wide: 'Say about how wide or how high the quilt should be.' })
  busy.value = true
  const project = crypto.randomUUID()
  try {
    const begun = { name: typed.name, fabrics: fabrics.value, ...body() }
    await hand(() => tried({ kind: 'begin_project', project, ...begun }))
    await router.push({ name: 'standing', params: { project } })
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    problem.value = error.message
    problems.value = Object.fromEntries(
      error.problem.errors.map((e) => [e.field === 'colourways' ? 'count' : e.field, e.message]),
    )
  } finally {
    busy.value = false
  }
}
const elsewhere = computed(() => {
  const beside = ['finished', 'count', 'start', 'sash', 'borders', 'wide', 'high']
  return problem.value && !Object.keys(problems.value).some((f) => beside.includes(f)) ? problem.value : ''
})
</script>

<template>
  <main id="main" class="page">
    <h1>A new project</h1>
    <form class="sheet form" aria-label="What it begins with" @submit.prevent="begin">
      <LengthInput v-model="typed.name" label="What to call it" words placeholder="New project" />
      <Choice v-model="typed.with" label="It begins with" :options="ways" />
      <div class="what">
        <div class="fields">
          <template v-if="typed.with === 'unit'">
            <LabelledSelect v-model="typed.kind" label="Kind of unit" :options="kindOptions" />
            <LengthInput
              v-model="typed.unitFinished"
              label="Unit finishes"
              :placeholder="example.unit"
              :problem="problems.finished"
            />
            <LengthInput
              v-model="typed.unitCount"
              label="Units wanted"
              numeric
              placeholder="48"
              :problem="problems.count"
            />
          </template>
          <template v-else>
            <div class="field">
              <span>Which block</span>
              <SelectInput
                v-model="typed.start"
                labelled="Which block"
                placeholder="type its name, or choose"
                :options="blockOptions"
              />
              <p v-if="problems.start" class="serious" role="alert">{{ problems.start }}</p>
            </div>
            <LengthInput
              v-model="typed.finished"
              label="Block finishes"
              :placeholder="example.block"
              :problem="problems.finished"
            />
            <Choice v-if="typed.with === 'quilt'" v-model="typed.by" label="The quilt is of" :options="bys" />
            <LengthInput
              v-if="typed.with === 'block' || typed.by === 'number'"
              v-model="typed.count"
              label="How many blocks"
              numeric
              placeholder="9"
              :problem="problems.count"
              :hint="
                typed.with === 'quilt' ? 'Rows and columns follow: 9 are 3 by 3, 5 are a runner.' : undefined
              "
            />
            <div v-else class="pair">
              <LengthInput
                v-model="typed.wide"
                label="About so wide"
                :placeholder="example.wide"
                :problem="problems.wide"
              />
              <LengthInput
                v-model="typed.high"
                label="About so high"
                :placeholder="example.high"
                :problem="problems.high"
              />
            </div>
          </template>
        </div>
        <UnitPicture v-if="shown" :drawing="{ ...shown, alt: '' }" :colours="colours" :size="150" />
      </div>
      <template v-if="typed.with === 'quilt'">
        <StripField
          v-model:width="typed.sash"
          v-model:fabric="sashFabric"
          use="Sashing"
          label="Sashing between the blocks finishes"
          :example="example.sash"
          :problem="problems.sash"
          :fabrics="fabricOptions"
        />
        <StripField
          v-model:width="typed.border"
          v-model:fabric="borderFabric"
          use="Border"
          label="Border finishes"
          :example="example.border"
          :problem="problems.borders"
          :fabrics="fabricOptions"
        />
      </template>
      <fieldset>
        <legend>Fabrics</legend>
        <div v-for="(name, n) in fabrics" :key="n" class="fabric">
          <i :style="{ background: plainColours[letters[n]!] ?? '#9fb0b6' }" aria-hidden="true" />
          <LengthInput
            :model-value="name"
            :label="`Fabric ${letters[n]!.toUpperCase()}`"
            words
            :placeholder="n === 0 ? 'its name, such as Tar' : ''"
            @update:model-value="nameFabric(n, $event)"
          />
        </div>
        <NButton v-if="fabrics.length < letters.length" text class="quiet" @click="more = fabrics.length + 1"
          >Another fabric</NButton
        >
      </fieldset>
      <p v-if="elsewhere" class="serious" role="alert">{{ elsewhere }}</p>
      <div>
        <NButton type="primary" size="large" attr-type="submit" :loading="busy">Begin</NButton>
      </div>
    </form>
  </main>
</template>

<style scoped>
.page {
  max-width: 820px;
  margin: 0 auto;
  padding: 28px 24px 48px;
}

h1 {
  color: var(--chalk);
  margin-bottom: 18px;
}

.form {
  display: grid;
  gap: 16px;
}

.what {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 150px;
  gap: 24px;
  align-items: start;
}

.fields,
.field,
fieldset {
  display: grid;
  gap: 12px;
}

.field {
  gap: 3px;
  align-content: start;
}

.field > span,
legend {
  font-stretch: 88%;
  font-weight: 550;
}

.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 16px;
}

fieldset {
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  align-items: end;
  border: 0;
  margin: 0;
  padding: 0;
}

legend {
  padding: 0 0 6px;
  font-size: 20px;
}

.fabric {
  display: grid;
  grid-template-columns: 14px minmax(0, 1fr);
  gap: 8px;
  align-items: end;
}

.fabric i {
  height: 40px;
  border: 1px solid var(--ink);
}

@media (width <= 620px) {
  .what,
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
