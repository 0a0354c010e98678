<script setup lang="ts">
import LengthInput from '@/shared/form/LengthInput.vue'
import SelectInput from '@/shared/form/SelectInput.vue'

/** How wide strips of one use finish; once that is said, which fabric they come from. */
defineProps<{
  /** "Sashing", "Border". */
  use: string
  label: string
  example: string
  problem?: string
  fabrics: { value: string; label: string }[]
}>()
const width = defineModel<string>('width', { required: true })
const fabric = defineModel<string>('fabric', { required: true })
</script>

<template>
  <div class="pair">
    <LengthInput v-model="width" :label="label" :placeholder="`none, or ${example}`" :problem="problem" />
    <div v-if="width.trim()" class="field">
      <span>{{ use }} from</span>
      <SelectInput v-model="fabric" :labelled="`${use} from`" :options="fabrics" />
    </div>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 16px;
}

.field {
  display: grid;
  gap: 3px;
  align-content: start;
}

.field > span {
  font-stretch: 88%;
  font-weight: 550;
}

@media (width <= 620px) {
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
