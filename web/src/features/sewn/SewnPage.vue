<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'

import { type Project, Refusal } from '@/shared/api/client'
import { sewnCauseWords } from '@/shared/lib/words'

import RangeInput from '@/shared/ui/RangeInput.vue'

import { type Asked, useSewn } from './api'
import KeptSheet from './KeptSheet.vue'
import MeasureForm from './MeasureForm.vue'
import ReadingsSheet from './ReadingsSheet.vue'
import RemedyList from './RemedyList.vue'
import SewnDrawing from './SewnDrawing.vue'
import { type Where } from './useMeasure'
import VerdictPanel from './VerdictPanel.vue'
import WorkingSheet from './WorkingSheet.vue'

/** A block as its readings make it: drawn with its faults, judged, with what to measure next and what to do. */
const props = defineProps<{
  project: Project
  block: { id: string; view: { name: string } }
  colours: Record<string, string>
}>()
const factor = useSessionStorage('entretoile.factor', 4)
const tried = ref('')
const { data, error } = useSewn(() => props.block.id, factor, tried)
const refusal = computed(() => (error.value instanceof Refusal ? error.value.message : ''))
const form = ref<InstanceType<typeof MeasureForm>>()
const where = computed<Where>(
  () =>
    form.value?.where ?? { kind: 'width', batch: 0, cell: -1, corner: '', seam: -1, spot: '', feature: '' },
)
const ask = (a: Asked) => form.value?.ask(a)
const partName = (p: { cause: string; name: string }) =>
  `${sewnCauseWords[p.cause]?.name.toLowerCase()}${p.name ? ` of ${p.name}` : ''}`
const faults = computed(() => data.value?.faults.slice(0, 10) ?? [])
</script>

<template>
  <main id="main" class="sewn">
    <h2 class="visually-hidden">{{ block.view.name }} as sewn</h2>
    <section v-if="refusal && !data" class="sheet wide" role="alert">
      <h2>This cannot be sewn yet</h2>
      <p>{{ refusal }}</p>
    </section>
    <template v-else-if="data">
      <div class="left">
        <p v-if="tried" class="trying" role="status">
          Tried on the drawing, nothing unpicked yet.
          <button type="button" class="quiet" @click="tried = ''">Show it as it is</button>
        </p>
        <SewnDrawing
          :drawing="data.drawing"
          :places="data.places"
          :colours="colours"
          :where="where"
          @pick="form?.pick($event)"
        />
        <div class="factor">
          <span
            >Errors drawn {{ factor === 1 ? 'as they are' : `${factor} times as large` }}; pick what you
            measure on it</span
          >
          <RangeInput v-model="factor" label="How much larger errors are drawn" :min="1" :max="12" />
        </div>
        <MeasureForm ref="form" :block="block.id" :places="data.places" />
        <ReadingsSheet :block="block.id" :sewn="data" />
      </div>
      <div class="right">
        <VerdictPanel :sewn="data" @ask="ask" />
        <section v-if="data.verdict.status !== 'no_readings'" class="sheet" aria-label="Faults">
          <h3>{{ tried ? 'What is left' : 'What is to be seen' }}</h3>
          <ol v-if="faults.length" class="faults">
            <li v-for="f in faults" :key="f.key" :value="f.number">
              {{ f.said }}<span v-if="f.eased" class="soft"> (pins ease that in)</span>
            </li>
          </ol>
          <p v-else class="soft">No fault: every tip touches and every diagonal meets its corner.</p>
          <p v-if="data.faults.length > 10" class="soft">
            and {{ data.faults.length - 10 }} more on the drawing.
          </p>
        </section>
        <template v-if="data.verdict.status !== 'no_readings'">
          <RemedyList
            title="This block"
            :remedies="data.this_block"
            :tried="tried"
            none="Nothing to do to this block."
            @try="tried = $event"
          />
          <RemedyList
            title="The rest of the batch"
            batch
            :remedies="data.the_batch"
            none="Change nothing yet: no cause is sure enough."
          />
        </template>
      </div>
      <template v-if="data.verdict.status !== 'no_readings'">
        <WorkingSheet class="wide" :sewn="data" :name="partName" />
      </template>
      <KeptSheet class="wide" :block="block.id" :kept="data.kept" :status="data.verdict.status" />
      <p class="wide on-mat">
        Not sure what you see? <RouterLink to="/wrong">Begin with what it looks like</RouterLink>
      </p>
    </template>
    <p v-else class="on-mat">Weighing the readings…</p>
  </main>
</template>

<style scoped>
.sewn {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}

.wide {
  grid-column: 1 / -1;
}

.left,
.right {
  display: grid;
  gap: 12px;
  align-content: start;
  justify-items: stretch;
}

.left > :first-child {
  justify-self: center;
}

.factor,
.on-mat,
.on-mat a {
  color: var(--chalk);
}

.trying {
  background: var(--oilskin);
  color: var(--ink);
  padding: 6px 12px;
  border-radius: 3px;
  width: 100%;
}

.faults {
  margin: 4px 0 0;
  padding-left: 30px;
  line-height: 1.28;
}

.faults li::first-letter {
  text-transform: uppercase;
}

@media (width <= 960px) {
  .sewn {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media print {
  .factor,
  .on-mat {
    display: none;
  }
}
</style>
