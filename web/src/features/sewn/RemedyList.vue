<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'

/** What can be done, the best first; what cannot, with the reason. */
defineProps<{ title: string; remedies: Schemas['Remedy'][]; none: string; tried?: string; batch?: boolean }>()
const emit = defineEmits<{ try: [string] }>()
const left = (r: Schemas['Remedy']) =>
  r.left === null
    ? ''
    : r.left === 0
      ? 'No fault is left.'
      : r.left === 1
        ? 'One fault is left.'
        : `${r.left} faults are left.`
const cost = (r: Schemas['Remedy']) =>
  [r.minutes ? `${r.minutes} minutes` : '', r.pieces ? `cut ${r.pieces}` : '', r.stock]
    .filter(Boolean)
    .join('; ')
    .replace(/\.$/, '')
</script>

<template>
  <section class="sheet" :aria-label="title">
    <h3>{{ title }}</h3>
    <p v-if="!remedies.length" class="soft">{{ none }}</p>
    <ol v-else>
      <li v-for="r in remedies" :key="r.code" :class="{ cannot: !r.possible, on: tried === r.code }">
        <strong>{{ r.title }}</strong>
        <p>{{ r.how }}</p>
        <p v-if="r.why_not" class="serious">Not possible here: {{ r.why_not }}</p>
        <template v-else>
          <p class="soft">
            {{ r.effect }}
            <template v-if="!batch">{{ left(r) }} Risk: {{ r.risk }}.</template>
            {{ cost(r) ? ` ${cost(r)}.` : '' }}
          </p>
          <button
            v-if="r.can_try && !batch"
            type="button"
            class="quiet"
            :aria-pressed="tried === r.code"
            @click="emit('try', tried === r.code ? '' : r.code)"
          >
            {{ tried === r.code ? 'Show it as it is' : 'Try it on the drawing' }}
          </button>
        </template>
      </li>
    </ol>
  </section>
</template>

<style scoped>
ol {
  margin: 6px 0 0;
  padding-left: 24px;
  display: grid;
  gap: 10px;
}

p {
  line-height: 1.28;
}

.cannot strong {
  text-decoration: line-through;
}

.on {
  background: #fdf1d2;
  box-shadow: -24px 0 0 #fdf1d2;
}
</style>
