<script setup lang="ts">
import { computed } from 'vue'

import type { Schemas } from '@/shared/api/client'
import Len from '@/shared/words/Len.vue'
import UnitPicture from '@/shared/drawing/UnitPicture.vue'

/** One unit with its numbers: wanted, spare, made in batches that come out even, and what is over. */
const props = defineProps<{
  unit: Schemas['Counted']
  fabrics: Schemas['Fabric'][]
  colours: Record<string, string>
}>()
const plan = computed(() => props.unit.plan)
const name = (role: string) => props.fabrics.find((f) => f.role === role)?.name ?? role.toUpperCase()
const used = computed(() => [...new Set(props.unit.part_fabrics)].map(name).join(', '))
const over = computed(() => plan.value?.pieces.filter((p) => p.left_over) ?? [])
</script>

<template>
  <tr>
    <td class="what">
      <UnitPicture :drawing="unit.picture" :colours="colours" :size="40" />
      <span>
        finishes <Len :of="unit.width" about /><template v-if="!unit.square">
          × <Len :of="unit.height" about
        /></template>
        <span class="soft">{{ unit.blocks.join(', ') }}</span>
      </span>
    </td>
    <td>{{ used }}</td>
    <td>
      <template v-if="unit.handed">{{ unit.as_drawn }} as drawn, {{ unit.mirrored }} mirrored</template>
      <template v-else>{{ unit.as_drawn }}</template>
      <span v-if="unit.spares" class="soft">and {{ unit.spares }} spare</span>
    </td>
    <td>
      <template v-if="plan">
        <template v-if="unit.handed">{{ plan.made_as_drawn }} and {{ plan.made_mirrored }}</template>
        <template v-else>{{ plan.made }}</template>
        <span v-if="unit.picture.marks.length > 1" class="soft">
          {{ plan.batches }} {{ plan.batches === 1 ? 'batch' : 'batches'
          }}{{ plan.spare ? `, ${plan.spare} over` : ', comes out even' }}
        </span>
      </template>
    </td>
    <td>
      <template v-if="plan">
        <span v-for="p in plan.pieces" :key="p.role + p.name" class="piece">
          {{ p.count }} {{ name(p.role) }} <Len :of="p.width" about /><template v-if="!p.square">
            × <Len :of="p.height" about
          /></template>
        </span>
        <span v-for="p in over" :key="`over ${p.role}${p.name}`" class="soft">
          {{ p.left_over }} {{ p.left_over === 1 ? 'triangle' : 'triangles' }} of {{ name(p.role) }} left over
        </span>
      </template>
      <span v-else class="serious">{{ unit.refusal?.message }}</span>
    </td>
  </tr>
</template>

<style scoped>
td {
  padding: 7px 14px 7px 0;
  vertical-align: top;
}

.what {
  display: flex;
  gap: 10px;
}

.soft,
.piece {
  display: block;
}
</style>
