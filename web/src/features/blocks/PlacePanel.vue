<script setup lang="ts">
import { fabricOptions } from '@/shared/form/fabrics'
import { NInputNumber } from 'naive-ui'
import SelectInput from '@/shared/form/SelectInput.vue'
import { computed, ref, watch } from 'vue'

import { useKinds } from '@/features/projects'
import type { Project } from '@/shared/api/client'
import { kindWords } from '@/shared/words/words'
import Len from '@/shared/words/Len.vue'

import type { Spot } from './api'
import type { Edit } from './useLayout'

/** What lies in the place one is at: its fabrics, its shape, and how many tracks it covers. */
const props = defineProps<{ spot: Spot; chosen: number; project: Project; roles: string[] }>()
const emit = defineEmits<{
  paint: [part: number | null, role: string]
  shape: [shape: Partial<Edit>]
  span: [across: number, down: number]
}>()

const title = computed(() => props.spot.name || kindWords[props.spot.content]?.name || 'Nothing yet')
const options = computed(() => {
  const known = fabricOptions(props.project)
  const free = props.roles.filter((r) => !known.some((k) => k.value === r))
  return [
    ...known,
    ...free.map((role) => ({ value: role, label: `Role ${role.toUpperCase()}, no fabric yet` })),
  ]
})
/** The parts of a unit by name; of a block inside by the fabrics that it has of its own. */
const part = (p: string) =>
  props.spot.name
    ? `in place of ${props.project.fabrics.find((f) => f.role === p)?.name ?? p.toUpperCase()}`
    : p
const colour = (role: string) => props.project.fabrics.find((f) => f.role === role)?.colour

const corners = ref<string[]>([])
const strip = ref('')
watch(
  () => props.spot,
  (s) => {
    corners.value = [...s.corners]
    strip.value = s.strip
  },
  { immediate: true },
)
const names = ['lower left', 'lower right', 'upper right', 'upper left']
const shares = ['0', '1/8', '1/7', '1/6', '1/5', '1/4', '2/7', '1/3', '2/5', '3/7', '1/2', '3/4', '1']
const withOwn = (own: string | undefined, zero: boolean) =>
  [...new Set([...(own ? [own] : []), ...shares.filter((s) => zero || s !== '0')])].map((value) => ({
    value,
    label: value === '0' ? 'none' : `${value.replace('/', '⁄')} of the side`,
  }))
const { data: kinds } = useKinds()
const kind = computed(() => kinds.value?.find((k) => k.name === props.spot.content))
const hasCorners = computed(() => !!kind.value?.has_corners)
const hasStrip = computed(() => !!kind.value?.has_strip)

function setCorner(n: number, share: string) {
  corners.value[n] = share
  emit('shape', { corners: corners.value, ...(hasStrip.value ? { strip: strip.value } : {}) })
}
</script>

<template>
  <section class="sheet" aria-label="The place chosen">
    <h2>{{ title }}</h2>
    <p class="soft">
      Row {{ spot.row + 1 }}, column {{ spot.column + 1 }}, finishing <Len :of="spot.width" about /> by
      <Len :of="spot.height" about /><template v-if="chosen > 1">; {{ chosen }} places chosen</template>
    </p>
    <div v-if="spot.content" class="fields">
      <template v-if="spot.parts.length">
        <div v-for="(p, i) in spot.parts" :key="p" class="field">
          <i :style="{ background: colour(spot.part_fabrics[i]!) }" aria-hidden="true" />
          <span>{{ part(p) }}</span>
          <SelectInput
            small
            :labelled="part(p)"
            :model-value="spot.part_fabrics[i] ?? ''"
            :options="options"
            @update:model-value="emit('paint', i, $event)"
          />
        </div>
      </template>
      <template v-if="hasCorners">
        <div v-for="(n, i) in names" :key="n" class="field">
          <i class="none" />
          <span>{{ n }} corner</span>
          <SelectInput
            small
            :labelled="`${n} corner`"
            :model-value="corners[i] ?? '0'"
            :options="withOwn(corners[i], true)"
            @update:model-value="setCorner(i, $event)"
          />
        </div>
      </template>
      <div v-if="hasStrip" class="field">
        <i class="none" />
        <span>strip finishes</span>
        <SelectInput
          small
          labelled="strip finishes"
          :model-value="strip"
          :options="withOwn(strip, false)"
          @update:model-value="emit('shape', { strip: $event })"
        />
      </div>
      <div class="span">
        <span>Covers</span>
        <NInputNumber
          size="small"
          :show-button="false"
          :min="1"
          :max="24"
          :value="spot.across"
          :input-props="{ 'aria-label': 'Columns covered' }"
          @update:value="emit('span', $event ?? 1, spot.down)"
        />
        across
        <NInputNumber
          size="small"
          :show-button="false"
          :min="1"
          :max="24"
          :value="spot.down"
          :input-props="{ 'aria-label': 'Rows covered' }"
          @update:value="emit('span', spot.across, $event ?? 1)"
        />
        down
      </div>
    </div>
    <p v-else class="soft">Take a unit in hand and lay it here: a click, or Enter.</p>
  </section>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 4px;
  margin-top: 8px;
}

.fields > .field {
  display: grid;
  grid-template-columns: 16px minmax(0, 1fr) 150px;
  gap: 8px;
  align-items: center;
  line-height: 1.15;
}

i {
  width: 16px;
  height: 16px;
  border: 1px solid var(--ink);
}

i.none {
  border: 0;
}

.span {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-top: 4px;
}

.span :deep(.n-input-number) {
  width: 88px;
}
</style>
