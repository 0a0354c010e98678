<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { NTable } from 'naive-ui'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'

import { api, type Project, type Schemas, taken } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'
import WaitingFor from '@/shared/ui/WaitingFor.vue'
import Len from '@/shared/words/Len.vue'

import CommonSizes from './CommonSizes.vue'
import MeasuredBlock from './MeasuredBlock.vue'
import TopMeasured from './TopMeasured.vue'

/** Finished blocks as they really measure: what to bring them to, where each lies best, and what the quilt will measure. */
const props = defineProps<{ project: Project }>()
const { data, error } = useQuery(
  computed(() => ({
    queryKey: ['measured', props.project.id],
    queryFn: () =>
      taken(api.GET('/api/projects/{key}/measured', { params: { path: { key: props.project.id } } })),
  })),
)
const { send } = useOutbox()
/** Where it stands what all blocks were brought to; none where blocks of several sizes are laid by hand. */
const blocks = computed(() => data.value?.top.find((s) => s.key === 'blocks')?.readings ?? [])

function settle(size: Schemas['CommonSize']) {
  const told = [size.width.text, size.height.text]
  for (const [n, place] of blocks.value.entries())
    send({
      kind: 'put_top_measured',
      project: props.project.id,
      place: place.key,
      changes: { value: told[n] },
      seen: { value: place.value?.text ?? '' },
    })
}
</script>

<template>
  <main id="main" class="measured">
    <WaitingFor v-if="!data && !error" what="the blocks" />
    <p v-else-if="!data" class="sheet" role="alert">{{ error?.message }}</p>
    <section v-else-if="!data.kinds.length" class="sheet">
      <h2>No block is laid out yet</h2>
      <p>
        <RouterLink :to="{ name: 'blocks', params: { project: project.id } }">Lay out a block</RouterLink>:
        when some are joined, what they measure is typed here.
      </p>
    </section>
    <template v-else>
      <div class="left">
        <section v-for="k in data.kinds" :key="k.block" class="sheet" :aria-label="`${k.name} measured`">
          <h2>{{ k.name }}</h2>
          <p class="soft">
            Each should measure <Len :of="k.width" /> × <Len :of="k.height" />, raw edge to raw edge through
            its middle, pressed and lying flat. Give the blocks numbers, with a pin and a bit of paper.
            {{ k.numbering }}
          </p>
          <NTable size="small" :bordered="false">
            <thead>
              <tr>
                <th scope="col">Block</th>
                <th scope="col">Across</th>
                <th scope="col">Down</th>
                <th scope="col">At the best size</th>
              </tr>
            </thead>
            <tbody>
              <MeasuredBlock
                v-for="o in k.ones"
                :key="o.number"
                :project="project.id"
                :block="k.block"
                :name="k.name"
                :one="o"
                :said="k.sizes?.best.fates.find((f) => f.name === `${k.name} ${o.number}`)?.said"
              />
            </tbody>
          </NTable>
        </section>
        <TopMeasured v-if="data.top.length" :project="project.id" :steps="data.top" />
      </div>
      <div class="right">
        <p v-if="data.refusal" class="sheet serious" role="alert">{{ data.refusal }}</p>
        <template v-for="k in data.kinds" :key="k.block">
          <CommonSizes
            v-if="k.sizes"
            :name="k.name"
            :sizes="k.sizes"
            :measured="k.measured.length"
            :borne="data.borne"
            :settles="data.kinds.length === 1 && blocks.length > 0"
            @settled="settle"
          />
        </template>
        <section class="sheet" aria-label="Where each lies best">
          <h2>Where each lies best</h2>
          <p v-if="data.waiting" class="soft">{{ data.waiting }}</p>
          <template v-else-if="data.unlike && data.before && data.least">
            <p>
              Laid so, edges that are joined differ by <Len :of="data.unlike" about /> in all; in the order of
              their numbers it was <Len :of="data.before" about />. No arrangement is below
              <Len :of="data.least" about />.
            </p>
            <NTable size="small" :bordered="false" class="places">
              <tbody>
                <tr v-for="(row, y) in data.places" :key="y">
                  <th scope="row">Row {{ y + 1 }}</th>
                  <td v-for="n in row" :key="n">{{ n }}</td>
                </tr>
              </tbody>
            </NTable>
          </template>
        </section>
        <section v-if="data.quilt" class="sheet" aria-label="The quilt">
          <h2>The quilt</h2>
          <p>
            {{ data.quilt.by }} it finishes <Len :of="data.quilt.width" about /> ×
            <Len :of="data.quilt.height" about />, nine times in ten within
            <Len :of="data.quilt.width_within" about /> across and
            <Len :of="data.quilt.height_within" about /> down.
          </p>
          <p v-if="data.quilt.why">{{ data.quilt.why }}</p>
        </section>
        <p v-if="!data.kinds.some((k) => k.measured.length)" class="sheet soft">
          One block measured both ways is enough to begin with. What is typed here counts as a reading
          everywhere else too.
        </p>
      </div>
    </template>
  </main>
</template>

<style scoped>
.measured {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}

.left,
.right {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}

section {
  overflow-x: auto;
}

.places td {
  font-size: 20px;
  font-weight: 600;
  text-align: center;
}

@media (width <= 900px) {
  .measured {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
