<script setup lang="ts">
import { computed } from 'vue'

import type { Schemas } from '@/shared/api/client'
import { causeWords } from '@/shared/lib/words'

/** What each cause adds to the row, on one scale: the bar is the estimate, the whisker holds it nine times in ten. */
const props = defineProps<{ verdict: Schemas['Verdict']; estimates: Schemas['CauseEstimate'][] }>()

const half = (v: number) => `${50 + v * 50}%`
const bar = (at: number) => ({ left: half(Math.min(at, 0)), width: `${Math.abs(at) * 50}%` })
const whisker = (from: number, to: number) => ({ left: half(from), width: `${(to - from) * 50}%` })
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
      <div class="scale" aria-hidden="true">
        <i class="zero" />
        <i class="bar" :style="bar(c.at)" />
        <i class="whisker" :style="whisker(c.from_at, c.to_at)" />
      </div>
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

.scale {
  position: relative;
  height: 44px;
  border-inline: 1px solid var(--steel-line);
}

.zero {
  position: absolute;
  inset: 0 auto 0 50%;
  width: 2px;
  background: var(--ink);
}

.bar {
  position: absolute;
  top: 10px;
  bottom: 10px;
  background: #2c7480;
}

.whisker {
  position: absolute;
  top: 16px;
  height: 12px;
  border: 2px solid var(--ink);
  border-block: 0;
  background: linear-gradient(var(--ink), var(--ink)) center / 100% 2px no-repeat;
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

  .scale {
    grid-column: 1 / -1;
    grid-row: 2;
  }
}
</style>
