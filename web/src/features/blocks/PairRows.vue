<script setup lang="ts">
import RowInput from '@/shared/form/RowInput.vue'
import SelectInput from '@/shared/form/SelectInput.vue'
import { fabricOptions } from '@/shared/form/fabrics'
import { NButton } from 'naive-ui'
import { computed } from 'vue'

import type { Project } from '@/shared/api/client'

import { nameOf, type Pair } from './pairs'

/** Matched pairs of fabrics, and how many blocks each is enough for. */
const props = defineProps<{ project: Project; first: string; second: string }>()
const pairs = defineModel<Pair[]>({ required: true })
const options = computed(() => fabricOptions(props.project))
const seconds = (of: Pair) => options.value.filter((f) => f.value !== of.first)
const colour = (role: string) => props.project.fabrics.find((f) => f.role === role)?.colour

function change(n: number, what: Partial<Pair>) {
  pairs.value = pairs.value.map((p, k) => {
    if (k !== n) return p
    const now = { ...p, ...what }
    if (now.first !== now.second) return now
    // Exchanged rather than twice the same.
    return what.first ? { ...now, second: p.first } : { ...now, first: p.second }
  })
}
const add = () => (pairs.value = [...pairs.value, { first: props.first, second: props.second, blocks: '' }])
const drop = (n: number) => (pairs.value = pairs.value.filter((_, k) => k !== n))
</script>

<template>
  <div class="pairs" role="group" aria-label="Pairs there are">
    <strong>Pairs there are, and for how many blocks</strong>
    <div
      v-for="(p, n) in pairs"
      :key="n"
      class="pair"
      role="group"
      :aria-label="nameOf(project, p.first + p.second)"
    >
      <span class="chosen">
        <i :style="{ background: colour(p.first) }" aria-hidden="true" />
        <SelectInput
          :model-value="p.first"
          labelled="First fabric"
          :options="options"
          @update:model-value="change(n, { first: String($event) })"
        />
      </span>
      <span class="chosen">
        <i :style="{ background: colour(p.second) }" aria-hidden="true" />
        <SelectInput
          :model-value="p.second"
          labelled="Second fabric"
          :options="seconds(p)"
          @update:model-value="change(n, { second: String($event) })"
        />
      </span>
      <RowInput
        :model-value="p.blocks"
        numeric
        labelled="Blocks"
        @update:model-value="change(n, { blocks: $event })"
      />
      <NButton
        text
        class="quiet"
        :aria-label="`Take out ${nameOf(project, p.first + p.second)}`"
        @click="drop(n)"
        >Take out</NButton
      >
    </div>
    <NButton class="add" @click="add">Add a pair</NButton>
  </div>
</template>

<style scoped>
.pairs {
  border-top: 2px dashed var(--steel-line);
  padding: 8px 0 0;
  display: grid;
  gap: 10px;
}

.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 6px 8px;
  align-items: center;
}

.chosen {
  display: grid;
  grid-template-columns: 14px minmax(0, 1fr);
  gap: 6px;
  align-items: stretch;
  min-height: 36px;
}

i {
  border: 1px solid var(--ink);
}

.add {
  justify-self: start;
}

@media (width <= 1000px) {
  .pair {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 90px auto;
  }
}

@media (width <= 560px) {
  .pair {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
}
</style>
