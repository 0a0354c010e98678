<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { useKinds } from '@/features/projects'
import type { Project } from '@/shared/api/client'
import { kindWords } from '@/shared/lib/words'
import Len from '@/shared/ui/Len.vue'

import type { Spot } from './api'

/** What lies in the place one is at: its fabrics, its shape, and how many tracks it covers. */
const props = defineProps<{ spot: Spot; chosen: number; project: Project; roles: string[] }>()
const emit = defineEmits<{
  paint: [part: number | null, role: string]
  shape: [shape: Record<string, unknown>]
  span: [across: number, down: number]
}>()

const title = computed(() => props.spot.name || kindWords[props.spot.content]?.name || 'Nothing yet')
const options = computed(() => {
  const known = props.project.fabrics.map((f) => ({ role: f.role, name: f.name }))
  const free = props.roles.filter((r) => !known.some((k) => k.role === r))
  return [...known, ...free.map((role) => ({ role, name: `Role ${role.toUpperCase()}, no fabric yet` }))]
})
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
const withOwn = (own: string | undefined, zero: boolean) => [
  ...new Set([...(own ? [own] : []), ...shares.filter((s) => zero || s !== '0')]),
]
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
        <label v-for="(p, i) in spot.parts" :key="p">
          <i :style="{ background: colour(spot.part_fabrics[i]!) }" aria-hidden="true" />
          <span>{{ p }}</span>
          <select
            :value="spot.part_fabrics[i]"
            @change="emit('paint', i, ($event.target as HTMLSelectElement).value)"
          >
            <option v-for="o in options" :key="o.role" :value="o.role">{{ o.name }}</option>
          </select>
        </label>
      </template>
      <template v-if="hasCorners">
        <label v-for="(n, i) in names" :key="n">
          <i class="none" />
          <span>{{ n }} corner</span>
          <select :value="corners[i]" @change="setCorner(i, ($event.target as HTMLSelectElement).value)">
            <option v-for="s in withOwn(corners[i], true)" :key="s" :value="s">
              {{ s === '0' ? 'none' : `${s.replace('/', '⁄')} of the side` }}
            </option>
          </select>
        </label>
      </template>
      <label v-if="hasStrip">
        <i class="none" />
        <span>strip finishes</span>
        <select :value="strip" @change="emit('shape', { strip: ($event.target as HTMLSelectElement).value })">
          <option v-for="s in withOwn(strip, false)" :key="s" :value="s">
            {{ s.replace('/', '⁄') }} of the side
          </option>
        </select>
      </label>
      <div class="span">
        <span>Covers</span>
        <label>
          <span class="visually-hidden">Columns covered</span>
          <input
            type="number"
            min="1"
            max="24"
            :value="spot.across"
            @change="emit('span', +($event.target as HTMLInputElement).value, spot.down)"
          />
          across
        </label>
        <label>
          <span class="visually-hidden">Rows covered</span>
          <input
            type="number"
            min="1"
            max="24"
            :value="spot.down"
            @change="emit('span', spot.across, +($event.target as HTMLInputElement).value)"
          />
          down
        </label>
      </div>
    </div>
    <p v-else class="soft">Take a unit in hand and lay it here: a click, or Enter.</p>
  </section>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 4px;
  margin-top: 8px;
}

.fields > label {
  display: grid;
  grid-template-columns: 16px minmax(0, 1fr) 132px;
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

select,
input {
  font: inherit;
  height: 34px;
  border: 1px solid var(--steel-line);
  border-radius: 3px;
  background: #fff;
  color: var(--ink);
  padding: 0 6px;
  width: 100%;
}

.span {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-top: 4px;
}

.span label {
  display: flex;
  gap: 6px;
  align-items: center;
}

.span input {
  width: 58px;
}
</style>
