<script setup lang="ts">
import { fabricOptions } from '@/shared/form/fabrics'
import RangeInput from '@/shared/form/RangeInput.vue'
import RowInput from '@/shared/form/RowInput.vue'
import SelectInput from '@/shared/form/SelectInput.vue'
import TickBox from '@/shared/form/TickBox.vue'
import { useQueryClient } from '@tanstack/vue-query'
import { NButton } from 'naive-ui'
import { computed, reactive, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'

import { Refusal, ServerAway, type Project } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'
import { useDraft } from '@/shared/offline/typed'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'

import { layScraps, type Sheet, useScrapPlaces } from './api'
import { fit } from './fit'
import FabricSelect from './FabricSelect.vue'
import PairRows from './PairRows.vue'
import { blocksOf, nameOf, pairsOf, type Pair } from './pairs'

/** So many units of each fabric, laid over the quilt so that no neighbours are alike. */
const props = defineProps<{ project: Project; sheet: Sheet; colours: Record<string, string> }>()
const client = useQueryClient()
const { send } = useOutbox()
const kept = computed(() => props.sheet.quilt.scraps)
const role = ref(kept.value.role[0] || props.sheet.blocks[0]?.view.roles[0] || 'a')
/** The second fabric of a matched pair; none where scraps are of one fabric each. */
const second = ref(kept.value.role[1] ?? '')
const pairs = ref<Pair[]>(pairsOf(kept.value.stock))
const stock = reactive<Record<string, string>>({})
const fixed = reactive<Record<string, string>>({ ...kept.value.fixed })
const order = ref(kept.value.order ?? 0)
const seed = ref(kept.value.seed ?? 1)
const corners = ref(!!kept.value.corners)
const sets = ref(!!kept.value.sets)
watch(
  () => props.project.fabrics.map((f) => f.role).join(),
  () => {
    for (const f of props.project.fabrics) stock[f.role] ??= String(kept.value.stock?.[f.role] ?? 0)
  },
  { immediate: true },
)
const both = computed(() => role.value + (sets.value ? second.value : ''))
const paired = computed(() => both.value.length > 1)
const scrapsAsked = () => ({
  role: both.value,
  stock: paired.value ? blocksOf(pairs.value) : { ...stock },
  fixed: { ...fixed },
  order: order.value,
  corners: corners.value,
  sets: sets.value,
})
let laid = JSON.stringify(scrapsAsked())
// What is typed and not laid out yet stays in this browser, through reloads and while the server is away.
const { draft, keepDraft } = useDraft(`scraps ${props.project.id}`)
if (typeof draft.role === 'string') [role.value, second.value] = [draft.role[0] ?? 'a', draft.role[1] ?? '']
if (second.value && draft.stock) pairs.value = pairsOf(draft.stock as Record<string, string>)
else Object.assign(stock, draft.stock)
if (draft.fixed) Object.assign(fixed, draft.fixed)
if (typeof draft.order === 'number') order.value = draft.order
if ('corners' in draft) corners.value = !!draft.corners
if ('sets' in draft) sets.value = !!draft.sets
watch([both, stock, pairs, fixed, order, corners, sets], () =>
  keepDraft(JSON.stringify(scrapsAsked()) === laid ? {} : scrapsAsked()),
)
const pin = ref('')
const problem = ref('')
const working = ref(false)

const { data: setting, error } = useScrapPlaces(
  () => props.project.id,
  () => both.value,
)
const places = computed(() => setting.value?.places ?? [])
const refusal = computed(() => problem.value || (error.value instanceof Refusal ? error.value.message : ''))
const blocks = computed(() => new Set(places.value.map((p) => p.spot)).size)
const total = computed(() => Object.values(scrapsAsked().stock).reduce((n, v) => n + (Number(v) || 0), 0))
const alike = computed(() => new Set(kept.value.laid ? (kept.value.alike ?? []).flat() : []))
const name = (scrap: string) => nameOf(props.project, scrap)
const pins = computed(() => [
  { value: '', label: 'nothing, and frees' },
  ...(paired.value
    ? Object.keys(blocksOf(pairs.value)).map((p) => ({ value: p, label: name(p) }))
    : fabricOptions(props.project)),
])
const seconds = computed(() => [
  { value: '', label: 'none: each of one fabric' },
  ...fabricOptions(props.project).filter((f) => f.value !== role.value),
])
const percent = (share: number | undefined) => `${(share ?? 0) * 100}%`

watch(role, () => {
  if (second.value === role.value) second.value = ''
})
watch(both, () => {
  pin.value = ''
  for (const k of Object.keys(fixed)) delete fixed[k]
})

async function run(again: boolean) {
  if (again) seed.value = (seed.value % 1000) + 1
  working.value = true
  try {
    const counts = Object.fromEntries(
      Object.entries(scrapsAsked().stock).filter(([, n]) => n.trim() && n.trim() !== '0'),
    )
    const sheet = await layScraps(props.project.id, { ...scrapsAsked(), stock: counts, seed: seed.value })
    laid = JSON.stringify(scrapsAsked())
    keepDraft({})
    client.setQueryData(['blocks', props.project.id], sheet)
    for (const rest of ['project', 'counts', 'cutting', 'buying', 'standing'])
      void client.invalidateQueries({ queryKey: [rest] })
    problem.value = ''
  } catch (e) {
    if (!(e instanceof Refusal || e instanceof ServerAway)) throw e
    problem.value =
      e instanceof Refusal ? e.message : `${e.message} What is typed stays here: lay it out when it is back.`
  } finally {
    working.value = false
  }
}

const takeUp = () => send({ kind: 'take_up_scraps', project: props.project.id })

function fix(n: number) {
  if (fixed[n] || !pin.value) delete fixed[n]
  else fixed[n] = pin.value
}
</script>

<template>
  <main id="main" class="scraps">
    <h2 class="visually-hidden">Scraps</h2>
    <form class="sheet form" @submit.prevent="run(false)">
      <FabricSelect v-model="role" label="Scraps take the place of" :project="project" />
      <TickBox v-model="sets">matched sets: all of one block alike</TickBox>
      <div v-if="sets" class="pin">
        and, in pairs, the place of
        <SelectInput v-model="second" labelled="In pairs, the place of" :options="seconds" />
      </div>
      <p v-if="paired">{{ blocks }} blocks in the quilt, pairs for {{ total }} named below.</p>
      <p v-else>{{ places.length }} places in the quilt, {{ total }} units named below.</p>
      <PairRows v-if="paired" v-model="pairs" :project="project" :first="role" :second="second" />
      <div v-else class="group" role="group" aria-label="Units there are">
        <strong>Units there are</strong>
        <div v-for="f in project.fabrics" :key="f.id" class="count">
          <i :style="{ background: f.colour }" aria-hidden="true" />
          <span>{{ f.name }}</span>
          <RowInput
            :model-value="stock[f.role] ?? '0'"
            numeric
            :labelled="f.name"
            @update:model-value="stock[f.role] = $event"
          />
        </div>
      </div>
      <div class="range">
        <span>At random</span>
        <RangeInput v-model="order" label="From at random to light to dark" :min="0" :max="100" :step="10" />
        <span>Light to dark</span>
      </div>
      <TickBox v-model="corners">corners count as neighbours too</TickBox>
      <div class="group" role="group" aria-label="Fixed places">
        <strong>Fixed places</strong>
        <div class="pin">
          A click on the picture fixes
          <SelectInput v-model="pin" labelled="A click on the picture fixes" :options="pins" />
        </div>
        <p class="soft">{{ Object.keys(fixed).length }} fixed.</p>
      </div>
      <NButton type="primary" attr-type="submit" :loading="working" :disabled="!places.length"
        >Lay them out</NButton
      >
      <div class="more">
        <NButton text class="quiet" @click="run(true)">Another arrangement</NButton>
        <NButton v-if="kept.laid" text class="quiet" @click="takeUp">Take them up</NButton>
      </div>
    </form>
    <div class="result">
      <p v-if="refusal" class="sheet serious" role="alert">{{ refusal }}</p>
      <div v-if="kept.laid && kept.said?.length" class="sheet" role="status">
        <p v-for="s in kept.said" :key="s">{{ s }}</p>
        <p class="soft">
          What each fabric takes stands in
          <RouterLink :to="{ name: 'counts', params: { project: project.id } }">Counts</RouterLink> and
          <RouterLink :to="{ name: 'cut', params: { project: project.id } }">Cut</RouterLink>, and follows.
          <a :href="`/api/projects/${project.id}/papers/scraps.pdf`" target="_blank" rel="noopener"
            >Map to print</a
          >
        </p>
      </div>
      <section class="sheet" aria-label="The quilt with its scraps">
        <div
          v-if="sheet.quilt.picture"
          class="picture"
          :style="{ maxWidth: `${fit(sheet.quilt.picture)}px` }"
        >
          <CoreDrawing :drawing="sheet.quilt.picture" :colours="colours" :width="fit(sheet.quilt.picture)" />
          <button
            v-for="(p, n) in places"
            :key="n"
            type="button"
            class="place"
            :class="{ fixed: fixed[n], alike: alike.has(n) }"
            :style="{
              left: percent(p.box[0]),
              top: percent(p.box[1]),
              width: percent(p.box[2]),
              height: percent(p.box[3]),
            }"
            :aria-label="`${p.name}${fixed[n] ? `, fixed to ${name(fixed[n]!)}` : ''}${alike.has(n) ? ', like a neighbour' : ''}`"
            :title="p.name"
            @click="fix(n)"
          />
        </div>
        <p v-else>Put the quilt together first, under Quilt; then its units can take scraps.</p>
      </section>
    </div>
  </main>
</template>

<style scoped>
.scraps {
  display: grid;
  grid-template-columns: clamp(280px, 34vw, 338px) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}

.form,
.result {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}

.group {
  border: 0;
  border-top: 2px dashed var(--steel-line);
  margin: 0;
  padding: 8px 0 0;
  display: grid;
  gap: 6px;
}

.count {
  display: grid;
  grid-template-columns: 16px minmax(0, 1fr) 76px;
  gap: 8px;
  align-items: center;
}

i {
  width: 16px;
  height: 16px;
  border: 1px solid var(--ink);
}

.range {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 8px;
  align-items: center;
}

.pin {
  display: grid;
  gap: 4px;
}

.more {
  display: flex;
  gap: 20px;
}

.picture {
  position: relative;
}

.place {
  position: absolute;
  padding: 0;
  border: 0;
  background: none;
  cursor: pointer;
}

.place:hover {
  box-shadow: inset 0 0 0 2px #fff;
}

.place.fixed {
  box-shadow:
    inset 0 0 0 2px var(--ink),
    inset 0 0 0 4px var(--oilskin);
}

.place.alike {
  background: repeating-linear-gradient(135deg, transparent 0 5px, #fff 5px 7px);
  box-shadow: inset 0 0 0 3px var(--buoy);
}

@media (width <= 760px) {
  .scraps {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
