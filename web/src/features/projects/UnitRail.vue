<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import { RouterLink, useRoute } from 'vue-router'

import type { PlannedUnit, Project } from '@/shared/api/client'
import { kindWords } from '@/shared/words/words'
import UnitPicture from '@/shared/drawing/UnitPicture.vue'

import KindDialog from './KindDialog.vue'
import { useUnits } from './useUnits'

/** The units of a project, laid out side by side; the one in hand lies on yellow. */
const props = defineProps<{ project: Project; unit: PlannedUnit; colours: Record<string, string> }>()
const { add, remove } = useUnits(() => props.project)
const route = useRoute()
const choosing = ref(false)

const to = (u: PlannedUnit) => ({
  name: route.name ?? 'plan',
  params: { project: props.project.id, unit: u.id },
})
const size = (u: PlannedUnit) =>
  u.width_shown.exact === u.height_shown.exact
    ? u.width_shown.pretty
    : `${u.width_shown.pretty} × ${u.height_shown.pretty}`
/** Units of blocks and units planned by hand stand side by side and are told apart. */
const mixed = computed(
  () =>
    new Set(props.project.units.map((u) => u.blocks.join())).size > 1 &&
    props.project.units.some((u) => u.blocks.length),
)
const whose = (u: PlannedUnit) =>
  !mixed.value ? '' : u.blocks.length ? `, for ${u.blocks.join(', ')}` : ', by hand'
const many = computed(() => props.project.units.length > 1)
</script>

<template>
  <div class="rail">
    <nav aria-label="Units of this project" class="held">
      <RouterLink
        v-for="u in project.units"
        :key="u.id"
        :to="to(u)"
        :class="{ here: u.id === unit.id }"
        :aria-current="u.id === unit.id ? 'true' : undefined"
      >
        <UnitPicture :drawing="u.picture" :colours="colours" :size="34" />
        <span>
          <strong>{{ kindWords[u.kind]?.name }}</strong>
          {{ u.count + u.mirrored }} finishing {{ size(u) }}{{ whose(u) }}
        </span>
      </RouterLink>
    </nav>
    <div class="acts">
      <NButton size="small" color="#f0b429" text-color="#10242b" @click="choosing = true">Add a unit</NButton>
      <NButton text class="quiet" @click="add(unit.kind, unit.id)">Copy this one</NButton>
      <NButton v-if="many && !unit.blocks.length" text class="quiet" @click="remove(unit)">Remove it</NButton>
    </div>
    <KindDialog v-model:show="choosing" title="Which unit" @choose="add($event)" />
  </div>
</template>
