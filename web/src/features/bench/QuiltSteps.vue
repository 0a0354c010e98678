<script setup lang="ts">
import { RouterLink } from 'vue-router'

import type { Project } from '@/shared/api/client'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'
import TickBox from '@/shared/form/TickBox.vue'
import WaitingFor from '@/shared/ui/WaitingFor.vue'

import { useQuiltBench } from './api'
import BenchSplit from './BenchSplit.vue'
import { useDone } from './useDone'

/** Blocks into rows, rows into the quilt, borders: step by step, with what is measured before something is cut. */
const props = defineProps<{ project: Project; colours: Record<string, string> }>()
const { data } = useQuiltBench(() => props.project.id)
const { isDone, toggle } = useDone(
  () => props.project.id,
  'quilt',
  () => null,
)
</script>

<template>
  <main id="main">
    <h2 class="visually-hidden">Join the quilt</h2>
    <section v-if="data && !data.steps.length" class="sheet">
      <h2>No quilt is put together</h2>
      <p v-if="data.refusal" class="serious">{{ data.refusal }}</p>
      <p>
        <RouterLink :to="{ name: 'quilt', params: { project: project.id } }">Put it together</RouterLink>, and
        the steps of joining it stand here.
      </p>
    </section>
    <BenchSplit
      v-else-if="data"
      :project="project.id"
      subject="quilt"
      label="The quilt"
      begin
      :cautions="data.cautions"
    >
      <template #first>
        <p class="soft">
          Blocks are never alike:
          <RouterLink :to="{ name: 'measured', params: { project: project.id } }"
            >what each measures</RouterLink
          >
          tells what to trim them to, and where each lies best.
        </p>
        <CoreDrawing v-if="data.picture" :drawing="data.picture" :colours="colours" :width="266" />
      </template>
      <ol class="steps">
        <li v-for="(s, i) in data.steps" :key="s.key" class="sheet">
          <div class="head">
            <h3>
              <b aria-hidden="true">{{ i + 1 }}</b> {{ s.title }}
            </h3>
            <TickBox
              :model-value="isDone(1, s.key, data.done)"
              @update:model-value="toggle(1, s.key, 'join', data.done)"
            >
              Done<span class="visually-hidden"> with {{ s.title }}</span>
            </TickBox>
          </div>
          <p v-for="t in s.said" :key="t">{{ t }}</p>
          <p v-for="t in s.look" :key="t" class="look">{{ t }}</p>
        </li>
      </ol>
    </BenchSplit>
    <WaitingFor v-else what="the quilt at the bench" />
  </main>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}

h3 b {
  display: inline-block;
  min-width: 1.6em;
  text-align: center;
  background: var(--ink);
  color: #fff;
}

.look {
  border-left: 5px solid var(--oilskin);
  padding-left: 10px;
  margin-top: 4px;
}
</style>
