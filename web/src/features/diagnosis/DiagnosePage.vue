<script setup lang="ts">
import { useWindowPreference } from '@/shared/offline/preference'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'

import { Refusal } from '@/shared/api/client'
import RangeInput from '@/shared/form/RangeInput.vue'

import { type Asked, useDiagnosis } from './api'
import MeasureForm from './MeasureForm.vue'
import PickDrawing from './PickDrawing.vue'
import ReadingsSheet from './ReadingsSheet.vue'
import RemedyList from './RemedyList.vue'
import SavedSheet from './SavedSheet.vue'
import SubjectPicker from './SubjectPicker.vue'
import { nowhere } from './useMeasure'
import { type SubjectProps, useSubject } from './useSubject'
import VerdictPanel from './VerdictPanel.vue'
import WorkingSheet from './WorkingSheet.vue'

/** A block or a row of units as its readings make it: drawn with its faults, judged, with what to measure next and what to do. */
const props = defineProps<SubjectProps>()
// What else the room knows is not for the page itself.
defineOptions({ inheritAttrs: false })
const { of, name } = useSubject(props)
const factor = useWindowPreference<number>('factor', 4)
const tried = ref('')
const { data, error } = useDiagnosis(of, factor, tried)
const refusal = computed(() => (error.value instanceof Refusal ? error.value.message : ''))
const form = ref<InstanceType<typeof MeasureForm>>()
const where = computed(() => form.value?.where ?? nowhere())
const ask = (a: Asked) => form.value?.ask(a)
const faults = computed(() => data.value?.faults.slice(0, 10) ?? [])
const heading = computed(() =>
  data.value?.before
    ? 'What is left, on the whole'
    : data.value?.expected
      ? 'What is to be expected'
      : 'What is to be seen',
)
const judged = computed(() => data.value?.verdict.status !== 'no_readings')
</script>

<template>
  <main id="main" class="diagnose">
    <h2 class="visually-hidden">Diagnose {{ name }}</h2>
    <SubjectPicker class="wide" :project="project" :of="of" />
    <section v-if="refusal && !data" class="sheet wide" role="alert">
      <h2>This cannot be sewn yet</h2>
      <p>{{ refusal }}</p>
    </section>
    <template v-else-if="data">
      <div class="left">
        <PickDrawing
          :width="280"
          :drawing="data.before ?? data.drawing"
          :places="data.places"
          :colours="colours"
          :where="where"
          @pick="form?.pick($event)"
        />
        <div class="factor">
          <span>Errors drawn {{ factor === 1 ? 'as they are' : `${factor} times as large` }}</span>
          <RangeInput v-model="factor" label="How much larger errors are drawn" :min="1" :max="12" />
        </div>
      </div>
      <MeasureForm ref="form" :key="of.of" class="form" :of="of" :found="data" />
      <div class="right">
        <VerdictPanel :found="data" @ask="ask" />
        <section v-if="judged" class="sheet" aria-label="Faults">
          <h3>{{ heading }}</h3>
          <p v-if="data.expected" class="soft">
            Nothing was read of seams, rows or tips yet: this rests on your records, or on what is usual.
          </p>
          <ol v-if="faults.length" class="faults">
            <li v-for="f in faults" :key="f.key" :value="f.number">
              {{ f.said }}<span v-if="f.eased" class="soft"> (pins ease that in)</span>
            </li>
          </ol>
          <p v-else class="soft">
            {{
              data.before
                ? 'None, if every seam comes out just as meant; hands leave a few.'
                : 'No fault that is seen.'
            }}
          </p>
          <p v-if="data.faults.length > 10" class="soft">
            and {{ data.faults.length - 10 }} more on the drawing.
          </p>
        </section>
      </div>
      <template v-if="judged">
        <RemedyList
          class="half"
          :title="of.subject === 'blocks' ? 'This block' : 'This row'"
          :remedies="data.this_block"
          :tried="tried"
          :before="data.before"
          :after="data.drawing"
          :colours="colours"
          none="Nothing to do to what is sewn."
          @try="tried = $event"
        />
        <RemedyList
          class="half"
          title="The rest of the batch"
          batch
          :remedies="data.the_batch"
          none="Change nothing: no cause is sure enough, or none is needed."
        />
      </template>
      <ReadingsSheet class="wide" :of="of" :found="data" />
      <WorkingSheet v-if="judged" :key="of.of" class="wide" :found="data" :of="of" />
      <SavedSheet class="wide" :of="of" :saved="data.saved" :status="data.verdict.status" />
      <p class="wide on-mat">
        Not sure what you see? <RouterLink to="/wrong">Begin with what it looks like</RouterLink>
      </p>
    </template>
    <p v-else class="on-mat">Weighing the readings…</p>
  </main>
</template>

<style scoped>
.diagnose {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) minmax(0, 1fr) minmax(0, 1fr);
  gap: 12px 14px;
  align-items: start;
}

.left {
  grid-column: 1;
}

.form {
  grid-column: 2;
}

.form :deep(.where) {
  grid-template-columns: minmax(0, 1fr);
}

.form :deep(.typed) {
  flex-wrap: wrap;
}

.right {
  grid-column: span 2;
}

.half {
  grid-column: span 2;
}

.wide {
  grid-column: 1 / -1;
}

.left,
.right {
  display: grid;
  gap: 10px;
  align-content: start;
}

.left :deep(.pickable) {
  justify-self: center;
}

.factor,
.on-mat,
.on-mat a {
  color: var(--chalk);
}

.factor {
  display: grid;
  gap: 4px;
}

.faults {
  margin: 4px 0 0;
  padding-left: 30px;
  line-height: 1.28;
}

.faults li::first-letter {
  text-transform: uppercase;
}

@media (width <= 1080px) {
  .diagnose {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }

  .left {
    grid-column: 1;
  }

  .form {
    grid-column: 2;
  }
}

@media (width <= 700px) {
  .diagnose > * {
    grid-column: 1 / -1;
  }
}

@media print {
  .factor,
  .on-mat {
    display: none;
  }
}
</style>
