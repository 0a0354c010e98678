<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'

import type { LengthOut, Schemas } from '@/shared/api/client'
import { causeWords } from '@/shared/lib/words'
import Len from '@/shared/ui/Len.vue'

const props = defineProps<{
  verdict: Schemas['Verdict']
  estimates: Schemas['CauseEstimate'][]
  target: LengthOut
  project: string
  unit: string
}>()
const name = (cause: string | null) => (cause ? (causeWords[cause]?.name ?? cause).toLowerCase() : '')
const saidOf = (cause: string | null) => props.estimates.find((e) => e.cause === cause)?.said ?? ''
const leading = computed(() => saidOf(props.verdict.leading))
const grounds = computed(() => props.estimates.filter((e) => e.cause !== 'cut'))
const settled = computed(() => props.verdict.status === 'settled')
</script>

<template>
  <section class="sheet verdict" aria-label="Verdict">
    <p class="soft">
      A row of {{ verdict.row_units }} should measure <Len :of="target" />.
      {{ verdict.measured ? 'Measured, it is' : 'Not measured; by the other readings it comes out' }}
    </p>
    <p class="big">{{ verdict.said }}</p>
    <p v-if="verdict.status === 'true'" class="says">
      <strong>Nothing needs mending.</strong> That is within what pins ease in.
      <template v-if="verdict.leading">
        But there are {{ leading }}, and something else happens to cancel it; see the causes.
      </template>
    </p>
    <p v-else-if="settled" class="says">
      <strong>{{ verdict.sure_words }} {{ leading }}</strong
      >{{ ' ' }}
      <span class="soft">({{ verdict.sure_percent }} in 100 that nothing else does more).</span>
    </p>
    <p v-else-if="verdict.status === 'several'" class="says">
      <strong>Two things together: {{ leading }}, and {{ saidOf(verdict.beside) }}</strong
      >{{ ' ' }}
      <span class="soft">(both are sure; which does more is not).</span>
    </p>
    <template v-else>
      <p class="says"><strong>These readings do not settle it.</strong></p>
      <p v-if="verdict.next_reading">
        The doubt is between {{ name(verdict.next_reading.between[0] ?? '') }} and
        {{ name(verdict.next_reading.between[1] ?? '') }}. {{ verdict.next_reading.said }} That would narrow
        the doubt from ±{{ verdict.next_reading.doubt_now.pretty }} to ±{{
          verdict.next_reading.doubt_after.pretty
        }}.
      </p>
      <p>
        <RouterLink :to="{ name: 'check', params: { project, unit } }">Take that reading down</RouterLink>
      </p>
    </template>
    <ul class="grounds">
      <li v-for="e in grounds" :key="e.cause">{{ e.grounds }}</li>
    </ul>
    <p v-if="verdict.unexplained" class="soft left">
      The causes together explain {{ verdict.expected.pretty }}; {{ verdict.unexplained.pretty }} is left to
      chance and the ruler.
    </p>
  </section>
</template>

<style scoped>
.verdict {
  display: grid;
  gap: 6px;
  align-content: start;
}

.big {
  font-size: 52px;
  line-height: 1.05;
  font-weight: 600;
}

.grounds {
  margin: 4px 0;
  padding-left: 20px;
}

.says {
  font-size: 19px;
}

.says strong::first-letter {
  text-transform: uppercase;
}

.says strong {
  display: inline-block;
}
</style>
