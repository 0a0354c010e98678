<script setup lang="ts">
import { reactive, watch } from 'vue'

import { Refusal, type Schemas } from '@/shared/api/client'
import RowInput from '@/shared/form/RowInput.vue'
import { useOutbox } from '@/shared/offline/outbox'
import Len from '@/shared/words/Len.vue'

/** The top measured as it grows: each length is kept when one leaves its field, and what is cut to it stands beside. */
const props = defineProps<{ project: string; steps: Schemas['TopStep'][] }>()
const { tried } = useOutbox()
type Reading = Schemas['TopReading']
const known = (r: Reading) => r.value?.text ?? ''
const typed = reactive<Record<string, string>>({})
const before: Record<string, string> = {}
/** What was sent last, so that Enter and leaving the field are one act. */
const sent: Record<string, string | undefined> = {}
const problems = reactive<Record<string, string>>({})
watch(
  () => props.steps,
  (steps) => {
    for (const r of steps.flatMap((s) => s.readings)) {
      const was = before[r.key]
      before[r.key] = known(r)
      if (was === known(r)) continue
      sent[r.key] = undefined
      if (was === undefined || typed[r.key] === was || !typed[r.key]) typed[r.key] = known(r)
    }
  },
  { immediate: true },
)

async function keep(r: Reading) {
  const now = (typed[r.key] ?? '').trim()
  if (now === (sent[r.key] ?? known(r))) return
  sent[r.key] = now
  delete problems[r.key]
  const changes = { value: now }
  try {
    await tried({
      kind: 'put_top_measured',
      project: props.project,
      place: r.key,
      changes,
      seen: { value: known(r) },
    })
  } catch (error) {
    sent[r.key] = undefined
    if (!(error instanceof Refusal)) throw error
    problems[r.key] = error.problem.errors[0]?.message ?? error.message
  }
}
</script>

<template>
  <section class="sheet" aria-label="The top as it grows">
    <h2>The top as it grows</h2>
    <p class="soft">Raw edge to raw edge, both allowances counted.</p>
    <div v-for="s in steps" :key="s.key" class="step" role="group" :aria-label="s.title">
      <h3>{{ s.title }}</h3>
      <p class="soft">{{ s.how }}</p>
      <ul>
        <li v-for="r in s.readings" :key="r.key">
          <span aria-hidden="true">{{ r.where }}</span>
          <RowInput
            :model-value="typed[r.key] ?? ''"
            length
            :wrong="r.key in problems"
            :labelled="`${s.title}: ${r.where}`"
            @update:model-value="typed[r.key] = $event"
            @keep="keep(r)"
          />
          <span v-if="problems[r.key]" class="serious" role="alert">{{ problems[r.key] }}</span>
          <span v-else-if="r.stale" class="soft">
            measured under another plan; should be <Len :of="r.planned" about /> now
          </span>
        </li>
      </ul>
      <p v-for="text in s.said" :key="text" class="said">{{ text }}</p>
    </div>
  </section>
</template>

<style scoped>
.step {
  margin-top: 14px;
  padding-top: 12px;
  border-top: 1px solid var(--steel-mid);
}

h3 {
  margin: 0;
}

ul {
  display: grid;
  gap: 6px;
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: 150px 150px minmax(0, 1fr);
  gap: 12px;
  align-items: center;
}

.said {
  margin: 8px 0 0;
  font-weight: 600;
}

@media (width <= 560px) {
  li {
    grid-template-columns: 120px minmax(0, 1fr);
  }

  li > :nth-child(3) {
    grid-column: 1 / -1;
  }
}
</style>
