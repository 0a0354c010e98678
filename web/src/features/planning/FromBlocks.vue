<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'

import type { PlannedUnit, Project } from '@/shared/api/client'
import Len from '@/shared/words/Len.vue'

/** What the blocks say of a unit that stands in the plan because of them. */
const props = defineProps<{ project: Project; unit: PlannedUnit }>()
const square = computed(() => props.unit.width_shown.exact === props.unit.height_shown.exact)
const fabrics = computed(() =>
  [...new Set(props.unit.part_fabrics)].map(
    (role) => props.project.fabrics.find((f) => f.role === role)?.name ?? role.toUpperCase(),
  ),
)
const names = computed(() => props.unit.blocks.join(', '))
</script>

<template>
  <div class="from" role="group" aria-label="From the blocks">
    <p>
      <strong>For {{ names }}:</strong>
      {{
        unit.count && unit.mirrored
          ? ` ${unit.count} as drawn and ${unit.mirrored} mirrored,`
          : ` ${unit.count + unit.mirrored},`
      }}
      finishing <Len :of="unit.width_shown" about /><template v-if="!square">
        × <Len :of="unit.height_shown" about /></template
      >, of {{ fabrics.join(', ') }}.
    </p>
    <p class="soft">
      Number, size and fabrics follow the block.
      <RouterLink :to="{ name: 'blocks', params: { project: project.id } }"
        >Change them on Lay out</RouterLink
      >
    </p>
  </div>
</template>

<style scoped>
.from {
  padding: 10px 12px;
  border-left: 8px solid #f0b429;
  background: #fff;
  line-height: 1.3;
}
</style>
