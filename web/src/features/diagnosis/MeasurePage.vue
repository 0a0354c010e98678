<script setup lang="ts">
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'

import { Refusal } from '@/shared/api/client'

import { useDiagnosis } from './api'
import MeasureForm from './MeasureForm.vue'
import PressedOpen from './PressedOpen.vue'
import WaitingFor from '@/shared/ui/WaitingFor.vue'

import PickDrawing from './PickDrawing.vue'
import ReadingsLadder from './ReadingsLadder.vue'
import ReadingsSheet from './ReadingsSheet.vue'
import SubjectPicker from './SubjectPicker.vue'
import { nowhere } from './useMeasure'
import { type SubjectProps, useSubject } from './useSubject'

/** Readings typed as fast as hands take them, each beside what it should be. */
const props = defineProps<SubjectProps>()
// What else the room knows is not for the page itself.
defineOptions({ inheritAttrs: false })
const { of, name } = useSubject(props)
const { data, error } = useDiagnosis(
  of,
  () => 1,
  () => '',
)
const refusal = computed(() => (error.value instanceof Refusal ? error.value.message : ''))
const form = ref<InstanceType<typeof MeasureForm>>()
const where = computed(() => form.value?.where ?? nowhere())
</script>

<template>
  <main id="main" class="measure">
    <h2 class="visually-hidden">Measure {{ name }}</h2>
    <SubjectPicker class="wide" :project="project" :of="of" />
    <section v-if="refusal && !data" class="sheet wide" role="alert">
      <h2>This cannot be measured yet</h2>
      <p>{{ refusal }}</p>
    </section>
    <template v-else-if="data">
      <div class="left">
        <MeasureForm ref="form" :key="of.of" focus :of="of" :found="data" />
        <PickDrawing
          :drawing="data.drawing"
          :places="data.places"
          :colours="colours"
          :where="where"
          @pick="form?.pick($event)"
        />
        <p v-if="unit" class="on-mat">
          While a lot is sewn or trimmed, one unit in so many tells whether it is steady:
          <RouterLink :to="{ name: 'lot', params: { project: project.id, unit: unit.id } }"
            >a lot, measured</RouterLink
          >.
        </p>
        <p v-if="block" class="on-mat">
          Several of them are joined?
          <RouterLink :to="{ name: 'measured', params: { project: project.id } }"
            >What each block measures</RouterLink
          >
          tells one size for all, and where each lies best.
        </p>
        <PressedOpen v-if="block" :project="project.id" :block="block.id" :seams="data.places.seams" />
      </div>
      <div class="right">
        <ReadingsLadder :found="data" />
        <ReadingsSheet :of="of" :found="data" />
      </div>
    </template>
    <WaitingFor v-else what="these readings" />
  </main>
</template>

<style scoped>
.measure {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.15fr);
  gap: 12px 14px;
  align-items: start;
}

.wide {
  grid-column: 1 / -1;
}

.left,
.right {
  display: grid;
  gap: 12px;
}

.on-mat,
.on-mat a {
  color: var(--chalk);
}

@media (width <= 760px) {
  .measure {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
