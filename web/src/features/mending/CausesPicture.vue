<script setup lang="ts">
import { computed } from 'vue'

import type { Schemas } from '@/shared/api/client'
import { causeWords } from '@/shared/lib/words'
import IntervalBar from '@/shared/ui/IntervalBar.vue'

/** What each cause adds to the row, on one scale: the bar is the estimate, the whisker holds it nine times in ten. */
const props = defineProps<{ verdict: Schemas['Verdict']; estimates: Schemas['CauseEstimate'][] }>()

const estimate = (cause: string) => props.estimates.find((e) => e.cause === cause)
const cut = computed(() => estimate('cut'))
</script>

<template>
  <section class="sheet" aria-label="Causes">
    <div class="head row">
      <h3>Taken apart</h3>
      <div class="ends" aria-hidden="true"><span>shorter</span><span>longer</span></div>
      <span />
    </div>
    <div
      v-for="c in verdict.contributions"
      :key="c.cause"
      class="row"
      :class="{ leads: c.cause === verdict.leading || c.cause === verdict.beside }"
    >
      <div>
        <strong>{{ causeWords[c.cause]?.name }}</strong>
        <p>{{ estimate(c.cause)?.said }}</p>
        <p class="soft">{{ estimate(c.cause)?.low.pretty }} to {{ estimate(c.cause)?.high.pretty }}</p>
      </div>
      <IntervalBar :at="c.at" :from="c.from_at" :to="c.to_at" />
      <div class="adds">
        <span class="number">{{ c.mean.pretty }}</span>
        <span v-if="c.share_percent !== null" class="soft">{{ c.share_percent }}% of it</span>
      </div>
    </div>
    <p class="soft note">
      Right: what each adds to the row, and its share of the whole; a share below zero works against the
      others. The whisker holds the true figure nine times in ten.
      <template v-if="cut && cut.sd.exact !== '0'">
        Cut size, which no longer counts once trimmed: off by {{ cut.mean.pretty }}, between
        {{ cut.low.pretty }} and {{ cut.high.pretty }}.
      </template>
    </p>
  </section>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 230px minmax(0, 1fr) 104px;
  gap: 14px;
  align-items: center;
  padding: 5px 8px;
}

.leads {
  background: #fdf1d2;
  box-shadow: inset 5px 0 0 var(--oilskin);
}

.ends {
  display: flex;
  justify-content: space-between;
  color: var(--ink-soft);
}

.adds {
  display: grid;
  text-align: right;
}

.note {
  margin-top: 8px;
}

p {
  line-height: 1.25;
}

@media (width <= 700px) {
  .row {
    grid-template-columns: 1fr 90px;
  }

  .row :deep(.scale) {
    grid-column: 1 / -1;
    grid-row: 2;
  }
}
</style>
