<script setup lang="ts">
import { NRadio, NRadioGroup, NTable } from 'naive-ui'
import { computed } from 'vue'

import { Refusal, type Project } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'
import { orderWords } from '@/shared/words/words'
import Len from '@/shared/words/Len.vue'

import { type SavedBlock, type Sheet, useJoining } from './api'
import PressingSheet from './PressingSheet.vue'

/** In what order the units are joined, with the size to check after every seam; and how each seam is pressed. */
const props = defineProps<{
  project: Project
  sheet: Sheet
  block: SavedBlock
  colours: Record<string, string>
}>()
const { data, error } = useJoining(() => props.block.id)
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
    <h2 class="visually-hidden">Join and press {{ block.view.name }}</h2>
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
        <hr class="basted" />
        <NTable size="small" :bordered="false">
          <thead>
            <tr>
              <th scope="col">Step</th>
              <th scope="col">Join</th>
              <th scope="col" class="size">Then it measures, unfinished</th>
              <th scope="col">Crossings to match</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(s, i) in data.steps" :key="i">
              <td>{{ i + 1 }}</td>
              <td class="what">{{ s.said }}</td>
              <td class="size"><Len :of="s.width" about /> × <Len :of="s.height" about /></td>
              <td>{{ s.crossings || '' }}</td>
            </tr>
          </tbody>
        </NTable>
        <p class="soft">
          Finished, once neighbours are joined on all sides: <Len :of="data.block.finished" about /> ×
          <Len :of="data.block.finished_height" about />.
        </p>
      </section>
      <PressingSheet :project="project" :block="block" :colours="colours" />
    </template>
  </main>
</template>

<style scoped>
.join {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.15fr);
  gap: 14px;
  align-items: start;
}

.wide {
  grid-column: 1 / -1;
}

.orders {
  display: grid;
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

table {
  width: 100%;
  border-collapse: collapse;
  line-height: 1.25;
}

th {
  text-align: left;
  font-weight: 600;
  font-stretch: 88%;
  padding: 0 10px 6px 0;
  vertical-align: bottom;
}

td {
  padding: 5px 10px 5px 0;
  border-top: 1px solid var(--steel-mid);
  vertical-align: top;
}

.size {
  white-space: nowrap;
}

.what::first-letter {
  text-transform: uppercase;
}

@media (width <= 1000px) {
  .join {
    grid-template-columns: minmax(0, 1fr);
  }

  th.size {
    white-space: normal;
  }
}
</style>
