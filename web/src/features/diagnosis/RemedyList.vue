<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed } from 'vue'

import type { Schemas } from '@/shared/api/client'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'
import { plural } from '@/shared/words/words'

/** What can be done, the best first; what cannot or is not worth it, with the reason. */
const props = defineProps<{
  title: string
  remedies: Schemas['Remedy'][]
  none: string
  tried?: string
  batch?: boolean
  /** There is no drawing here on which one could be tried. */
  undrawn?: boolean
  /** The block as it is and with the remedy that is tried, drawn where it was chosen. */
  before?: Schemas['Drawing'] | null
  after?: Schemas['Drawing']
  colours?: Record<string, string>
}>()
const emit = defineEmits<{ try: [string] }>()
const upper = (s: string) => s.charAt(0).toUpperCase() + s.slice(1)
const ofWhat = computed(() => (props.batch ? '' : ` for ${props.undrawn ? 'these' : 'this block'}`))
const cost = (r: Schemas['Remedy']) =>
  [
    r.minutes ? `${plural(r.minutes, 'minute')}${ofWhat.value}` : '',
    r.quilt_minutes ? `${plural(r.quilt_minutes, 'minute')} for all of them` : '',
    r.pieces ? `cut ${r.pieces}` : '',
    r.stock.replace(/\.$/, ''),
  ]
    .filter(Boolean)
    .join('; ')
const sentences = (r: Schemas['Remedy']) =>
  [r.effect, props.batch ? '' : upper(r.left), props.batch ? '' : `Risk: ${r.risk}`, cost(r)]
    .filter(Boolean)
    .map((s) => s.replace(/\.$/, ''))
    .join('. ') + '.'
/** Cloth is unpicked: the usual care of a sharp point stands there once. */
const sharp = (list: Schemas['Remedy'][]) => list.some((r) => r.possible && r.unpicks)
</script>

<template>
  <section class="sheet" :aria-label="title">
    <h3>{{ title }}</h3>
    <p v-if="!remedies.length" class="soft">{{ none }}</p>
    <template v-else>
      <ol>
        <li v-for="r in remedies" :key="r.code" :class="{ cannot: !r.possible, on: tried === r.code }">
          <strong>{{ r.title }}</strong>
          <p v-if="r.possible">{{ r.how }}</p>
          <p v-if="r.why_not" class="soft">Not worth it here: {{ r.why_not }}</p>
          <template v-else>
            <p class="soft">{{ sentences(r) }}</p>
            <NButton
              v-if="r.can_try && !batch && !undrawn"
              size="small"
              :aria-pressed="tried === r.code"
              @click="emit('try', tried === r.code ? '' : r.code)"
            >
              {{ tried === r.code ? 'Show it as it is' : 'Try it on the drawing' }}
            </NButton>
            <div v-if="tried === r.code && before && after" class="pair">
              <figure>
                <CoreDrawing :drawing="before" :colours="colours ?? {}" :width="230" />
                <figcaption>As it is</figcaption>
              </figure>
              <figure>
                <CoreDrawing :drawing="after" :colours="colours ?? {}" :width="230" />
                <figcaption>With the remedy, nothing unpicked yet</figcaption>
              </figure>
            </div>
          </template>
        </li>
      </ol>
      <p v-if="sharp(remedies)" class="soft caution">
        The ripper's point goes away from the hand that holds the cloth; good light, and a rest for the eyes.
      </p>
    </template>
  </section>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  margin-top: 8px;
}

figure {
  margin: 0;
}

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
  color: var(--ink-soft);
}

.caution {
  margin-top: 8px;
}

.on {
  background: #fdf1d2;
  box-shadow: -24px 0 0 #fdf1d2;
}
</style>
