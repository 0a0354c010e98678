<script setup lang="ts">
import { NRadio, NRadioGroup } from 'naive-ui'
import { computed } from 'vue'

import { BlockSteps } from '@/features/bench'
import { Refusal, type Project } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'
import { orderWords } from '@/shared/words/words'
import Len from '@/shared/words/Len.vue'

import { type SavedBlock, type Sheet, useJoining } from './api'

/** In what order the units are joined, and every step of it with the size to check. */
const props = defineProps<{
  project: Project
  sheet: Sheet
  block: SavedBlock
  colours: Record<string, string>
}>()
const { data, error } = useJoining(() => props.block)
const { send } = useOutbox()
const refusal = computed(() => (error.value instanceof Refusal ? error.value.message : ''))

const join = (order: SavedBlock['order']) =>
  send({
    kind: 'put_block',
    project: props.project.id,
    block: props.block.id,
    changes: { order },
    seen: { order: props.block.order },
  })
</script>

<template>
  <main id="main" class="join">
    <h2 class="visually-hidden">Join {{ block.view.name }}</h2>
    <section v-if="refusal" class="sheet wide" role="alert">
      <h2>This cannot be sewn yet</h2>
      <p>{{ refusal }}</p>
    </section>
    <template v-if="data && !refusal">
      <section class="sheet" aria-label="Order of joining">
        <h2>Order of joining</h2>
        <NRadioGroup
          :value="data.order"
          name="order"
          role="radiogroup"
          aria-label="Order"
          class="orders"
          @update:value="join($event)"
        >
          <NRadio
            v-for="(o, i) in data.orders"
            :key="o.order"
            :value="o.order"
            :class="{ on: o.order === data.order }"
          >
            <strong>{{ orderWords[o.order]?.name }}<template v-if="i === 0">, proposed</template></strong>
            {{ orderWords[o.order]?.line }}. {{ o.said }}
          </NRadio>
        </NRadioGroup>
        <p class="soft">
          Finished, once neighbours are joined on all sides: <Len :of="data.block.finished" about /> ×
          <Len :of="data.block.finished_height" about />.
        </p>
      </section>
      <BlockSteps :project="project" :block="block.id" :colours="colours" stage="join" />
    </template>
  </main>
</template>

<style scoped>
.join {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}

.orders {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 6px;
  margin-top: 10px;
}

.orders :deep(.n-radio) {
  align-items: start;
  padding: 6px 10px;
  line-height: 1.3;
}

.orders :deep(.n-radio.on) {
  background: #fdf1d2;
  box-shadow: inset 5px 0 0 var(--oilskin);
}

strong {
  display: block;
}
</style>
