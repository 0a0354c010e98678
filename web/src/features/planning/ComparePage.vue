<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { NButton } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'

import { api, type PlannedUnit, type Project, Refusal, type Schemas, taken } from '@/shared/api/client'
import { lastOf } from '@/shared/api/lastOf'
import { useOutbox } from '@/shared/offline/outbox'
import { methodWords, schoolWords } from '@/shared/words/words'
import LengthInput from '@/shared/form/LengthInput.vue'

import CompareTable from './CompareTable.vue'
import { planRequest, keptDraft } from './draft'

const props = defineProps<{ project: Project; unit: PlannedUnit; colours: Record<string, string> }>()
const route = useRoute()
const router = useRouter()
const { send } = useOutbox()

/** What is at hand is part of the address, so that reloading keeps it. */
const atHand = ref(String(route.query.have ?? ''))
const asking = refDebounced(atHand, 40)
watch(asking, (have) => void router.replace({ query: { ...route.query, have: have || undefined } }))

const body = computed(() => ({
  ...planRequest(keptDraft(props.project, props.unit)),
  at_hand: asking.value,
}))
const { data, error } = useQuery(
  computed(() => ({
    queryKey: ['compare', body.value],
    queryFn: ({ signal }: { signal: AbortSignal }) =>
      taken(api.POST('/api/compare', { body: body.value, signal })),
    placeholderData: keepPreviousData,
    retry: false,
  })),
)
const problem = computed(() =>
  error.value instanceof Refusal
    ? error.value.problem.errors.find((e) => e.field === 'at_hand')?.message
    : undefined,
)
const last = lastOf(data)
const best = computed(() => last.value?.ways[0])

function choose(way: Schemas['Way']) {
  const unit = props.unit
  send({
    kind: 'change_unit',
    project: props.project.id,
    unit: unit.id,
    changes: { method: way.method, school: way.school, cuts: {} },
    seen: { method: unit.method, school: unit.school },
  })
  void router.push({ name: 'plan', params: { project: props.project.id, unit: unit.id } })
}
</script>

<template>
  <main id="main" class="compare">
    <section class="sheet top" aria-label="Recommended">
      <div v-if="best && !best.refusal">
        <p class="soft">For these numbers, first of all</p>
        <h2>
          {{ methodWords(unit.kind, best.method).name }}, {{ schoolWords[best.school]?.name.toLowerCase() }}
        </h2>
        <p v-if="last?.reason">{{ last.reason }}</p>
        <p class="acts">
          <NButton type="primary" @click="choose(best)">Plan it this way</NButton>
          <RouterLink :to="{ name: 'plan', params: { project: project.id, unit: unit.id } }"
            >Back to the plan</RouterLink
          >
        </p>
      </div>
      <p v-else-if="error && !problem">{{ error.message }}</p>
      <div class="hand">
        <LengthInput
          v-model="atHand"
          label="Pieces at hand, of each fabric"
          words
          placeholder="12 of 10 x 10; 5 x 5"
          :problem="problem"
          hint="Then the table says how many units they give, and the largest unit each way makes of them."
        />
      </div>
    </section>
    <CompareTable
      v-if="last"
      :ways="last.ways"
      :kind="unit.kind"
      :chosen="{ method: unit.method, school: unit.school }"
      :wanted="unit.count + unit.mirrored"
      @choose="choose"
    />
    <p v-else-if="!error" class="waiting">Laying all ways side by side…</p>
  </main>
</template>

<style scoped>
.compare {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}

.top {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(0, 1fr);
  gap: 28px;
  align-items: start;
}

.acts {
  display: flex;
  gap: 18px;
  align-items: center;
  margin-top: 10px;
}

.waiting {
  color: var(--chalk);
}

@media (width <= 820px) {
  .top {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
