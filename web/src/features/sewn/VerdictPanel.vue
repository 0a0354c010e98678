<script setup lang="ts">
import { computed } from 'vue'

import { sewnCauseWords } from '@/shared/lib/words'
import IntervalBar from '@/shared/ui/IntervalBar.vue'

import type { Asked, Sewn } from './api'

/** What the readings say, how surely, and the reading that would settle most. */
const props = defineProps<{ sewn: Sewn; byHand?: boolean }>()
const emit = defineEmits<{ ask: [Asked] }>()
const v = computed(() => props.sewn.verdict)
const lead = (key?: string) => v.value.leads.find((l) => l.parameter.key === key)
const batch = (n: number) => props.sewn.places.batches.find((b) => b.number === n)?.name ?? ''
const name = (p: { cause: string; batch: number }) =>
  `${sewnCauseWords[p.cause]?.name ?? p.cause}${p.batch >= 0 ? `, ${batch(p.batch)}` : ''}`
const low = (words: string) => words.charAt(0).toLowerCase() + words.slice(1)
const shown = computed(() => v.value.leads.slice(0, 6))
const believed = computed(() => props.sewn.hypotheses.filter((h) => h.code !== 'none' && h.percent >= 20))
const next = computed(() => props.sewn.next[0])
</script>

<template>
  <section class="sheet verdict" aria-label="Verdict">
    <p v-if="v.status === 'no_readings'" class="says">
      <strong>Nothing measured yet.</strong>
      {{ byHand ? 'Type a reading below.' : 'Pick a place on the drawing, or begin with this:' }}
    </p>
    <p v-else-if="v.status === 'true'" class="says">
      <strong>Sewn and trimmed true</strong>
      <span class="soft">({{ v.sure_percent }} in 100): nothing is off by more than hands always are.</span>
    </p>
    <p v-else-if="v.status === 'settled'" class="says">
      <strong>{{ v.sure_words }}: {{ lead(v.leading?.key)?.said }}</strong>
      <span class="soft"> ({{ v.sure_percent }} in 100 that nothing else is off by more).</span>
    </p>
    <p v-else-if="v.status === 'several'" class="says">
      <strong
        >Two things together: {{ lead(v.leading?.key)?.said }}, and {{ lead(v.beside?.key)?.said }}</strong
      >
      <span class="soft"> (both are sure; which is larger is not).</span>
    </p>
    <p v-else class="says"><strong>These readings do not settle it.</strong></p>
    <p v-for="h in believed" :key="h.code" class="one">
      <strong>{{ h.said }}</strong> <span class="soft">({{ h.percent }} in 100).</span> {{ h.why }}
    </p>
    <p v-for="o in sewn.odd" :key="o" class="serious">Asked about, and left out until then: {{ o }}</p>
    <p v-if="sewn.unsteady > 1.15" class="soft">
      Readings scatter {{ sewn.unsteady.toFixed(1) }} times as much as hands usually do: look at blade, pins
      and foot. The intervals are that much wider.
    </p>
    <div v-if="v.status !== 'no_readings'" class="leads" role="group" aria-label="Causes">
      <div class="row head" aria-hidden="true">
        <span /><span class="ends"><i>less</i><i>more</i></span
        ><span />
      </div>
      <div
        v-for="l in shown"
        :key="l.parameter.key"
        class="row"
        :class="{ on: [v.leading?.key, v.beside?.key].includes(l.parameter.key) }"
      >
        <span>{{ name(l.parameter) }}</span>
        <IntervalBar :at="l.at" :from="l.from_at" :to="l.to_at" />
        <span class="figures"
          ><span class="number">{{ l.mean.pretty }}</span>
          <small class="soft">{{ l.low.pretty }} to {{ l.high.pretty }}</small></span
        >
      </div>
    </div>
    <template v-if="next && v.status !== 'true'">
      <h3>The next reading</h3>
      <p>{{ next.said }}</p>
      <ul v-if="next.outcomes.length" class="outcomes">
        <li v-for="o in next.outcomes" :key="o.said">{{ o.said }}</li>
      </ul>
      <p class="soft">
        It narrows the doubt about {{ low(name(next.about)) }} from ±{{ next.doubt_now.pretty }} to ±{{
          next.doubt_after.pretty
        }}<template v-if="next.after_percent > next.now_percent"
          >, and the largest cause is then named rightly {{ next.after_percent }} times in 100, not
          {{ next.now_percent }}</template
        >.
      </p>
      <button v-if="!byHand" type="button" class="quiet dark" @click="emit('ask', next)">
        Take this one
      </button>
    </template>
  </section>
</template>

<style scoped>
.verdict {
  display: grid;
  gap: 8px;
  align-content: start;
}

.says strong::first-letter {
  text-transform: uppercase;
}

.says strong {
  display: inline;
}

.says {
  font-size: 20px;
  line-height: 1.25;
}

.one {
  background: #fdf1d2;
  box-shadow: inset 5px 0 0 var(--oilskin);
  padding: 6px 12px;
}

.row {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(80px, 1fr) 150px;
  gap: 12px;
  align-items: center;
  padding: 2px 8px;
  line-height: 1.15;
}

.row.on {
  background: #fdf1d2;
  box-shadow: inset 5px 0 0 var(--oilskin);
}

.ends {
  display: flex;
  justify-content: space-between;
  color: var(--ink-soft);
}

.ends i {
  font-style: normal;
}

.figures {
  display: grid;
  text-align: right;
}

small {
  font-size: 16px;
}

.outcomes {
  margin: 0;
  padding-left: 20px;
}

.outcomes li::first-letter {
  text-transform: uppercase;
}

.dark {
  justify-self: start;
}

@media (width <= 700px) {
  .row {
    grid-template-columns: 1fr auto;
  }

  .row :deep(.scale) {
    grid-column: 1 / -1;
    grid-row: 2;
  }

  .ends {
    grid-column: 1 / -1;
  }
}
</style>
