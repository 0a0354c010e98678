<script setup lang="ts">
import { NTable } from 'naive-ui'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'

import type { Project, Schemas } from '@/shared/api/client'
import Len from '@/shared/words/Len.vue'
import { plural } from '@/shared/words/words'

/** Every piece without a seam in it, and what backs and binds the quilt. */
const props = defineProps<{ project: Project; quilt: Schemas['QuiltView'] }>()
const sizes = computed(() => props.quilt.sizes!)
const name = (role: string) => props.project.fabrics.find((f) => f.role === role)?.name ?? 'no fabric yet'
const colour = (role: string) => props.project.fabrics.find((f) => f.role === role)?.colour
const into: Record<number, string> = { 2: 'cut once on the diagonal', 4: 'cut on both diagonals' }
</script>

<template>
  <section class="sheet" aria-label="Plain pieces to cut">
    <h2>Plain pieces to cut</h2>
    <p class="soft">
      {{ quilt.cloth }} of cloth besides the blocks, backing not counted.
      <RouterLink :to="{ name: 'measured', params: { project: project.id } }"
        >Measure the top as it grows</RouterLink
      >: borders are cut to the mean of three lengths.
    </p>
    <div class="scroll" tabindex="0" role="region" aria-label="Pieces and sizes">
      <NTable size="small" :bordered="false">
        <thead>
          <tr>
            <th scope="col">Piece</th>
            <th scope="col">From</th>
            <th scope="col" class="n">Number</th>
            <th scope="col">Cut</th>
            <th scope="col">Finishes</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in sizes.pieces" :key="p.name">
            <td>
              <span class="name">{{ p.name }}</span>
              <span v-if="p.note" class="soft">{{ p.note }}</span>
            </td>
            <td class="from">
              <i :style="{ background: colour(p.fabric) }" aria-hidden="true" /> {{ name(p.fabric) }}
            </td>
            <td class="n">
              {{ p.count }}
              <span v-if="p.cut_into > 1" class="soft"
                >gives {{ p.needed }}<template v-if="p.left_over"> and {{ p.left_over }} over</template></span
              >
            </td>
            <td class="size">
              <Len :of="p.cut_width" about /> × <Len :of="p.cut_height" about />
              <span v-if="into[p.cut_into]" class="soft">{{ into[p.cut_into] }}</span>
            </td>
            <td class="size"><Len :of="p.finished_width" about /> × <Len :of="p.finished_height" about /></td>
          </tr>
        </tbody>
      </NTable>
    </div>
    <hr class="basted" />
    <div class="two">
      <div>
        <h3>Backing, {{ name(quilt.backing_fabric) }}</h3>
        <p v-if="sizes.backing[0]">
          <Len :of="sizes.backing[0].width" about /> × <Len :of="sizes.backing[0].height" about />, larger
          than the quilt on every side.
        </p>
        <ul>
          <li v-for="(b, i) in sizes.backing" :key="b.said">
            {{ i === 0 ? '' : 'Or: ' }}{{ b.said }} <Len :of="b.length" about /> in all.
          </li>
        </ul>
      </div>
      <div>
        <h3>Binding, {{ name(quilt.binding_fabric) }}</h3>
        <p>
          {{ plural(sizes.binding.strips, 'strip') }} cut <Len :of="sizes.binding.strip" about /> wide across
          the cloth, joined on the diagonal: <Len :of="sizes.binding.round_about" about /> round the quilt and
          a foot over. {{ sizes.binding_corner }}
        </p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
  margin-top: 8px;
  line-height: 1.3;
}

th {
  text-align: left;
  font-weight: 600;
  font-stretch: 88%;
  padding: 0 12px 6px 0;
}

td {
  padding: 6px 12px 6px 0;
  border-top: 1px solid var(--steel-mid);
  vertical-align: top;
}

.size,
.from {
  white-space: nowrap;
}

td .soft {
  white-space: normal;
  display: block;
}

.name::first-letter {
  text-transform: uppercase;
}

.name {
  display: inline-block;
}

i {
  display: inline-block;
  width: 14px;
  height: 14px;
  border: 1px solid var(--ink);
  vertical-align: -2px;
}

.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 22px;
}

ul {
  margin: 6px 0 0;
  padding-left: 18px;
}

@media (width <= 760px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
