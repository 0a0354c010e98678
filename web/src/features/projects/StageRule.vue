<script setup lang="ts">
import { computed, toRefs } from 'vue'
import { RouterLink, useRoute } from 'vue-router'

import { useBench } from './api'

const props = defineProps<{ project: string; unit?: string }>()

/** The stages as marks on a steel rule, in working order, each with what is done of how many. */
const stages = [
  { name: 'blocks', title: 'Lay out', line: 'blocks' },
  { name: 'plan', title: 'Plan', line: 'sizes' },
  { name: 'cut', title: 'Cut', line: 'cloth' },
  { name: 'sew', title: 'Sew', line: 'units' },
  { name: 'press', title: 'Press', line: 'seams' },
  { name: 'trim', title: 'Trim', line: 'to size' },
  { name: 'join', title: 'Join', line: 'blocks' },
  { name: 'measure', title: 'Measure', line: 'readings' },
  { name: 'diagnose', title: 'Diagnose', line: 'and mend' },
]
const layingOut = ['blocks', 'lay', 'look', 'what-if', 'quilt', 'scraps', 'counts']
const route = useRoute()
const { project, unit } = toRefs(props)
const { data: bench } = useBench(project)

const block = computed(() => (typeof route.params.block === 'string' ? route.params.block : ''))
const line = (name: string, usual: string) => {
  const found = bench.value?.stages.find((s) => s.stage === name)
  return found?.of ? `${found.done} of ${found.of}` : usual
}

/** Laying out, cutting and joining belong to the project; measuring and diagnosing to the block in hand, if there is one; every
 * other stage to a unit, the first one when none is in hand. */
const to = (stage: string) =>
  stage === 'blocks' || stage === 'cut'
    ? { name: stage, params: { project: project.value } }
    : stage === 'join'
      ? block.value
        ? { name: 'join', params: { project: project.value, block: block.value } }
        : { name: 'joins', params: { project: project.value } }
      : block.value && (stage === 'measure' || stage === 'diagnose')
        ? { name: `${stage}-block`, params: { project: project.value, block: block.value } }
        : unit.value
          ? { name: stage, params: { project: project.value, unit: unit.value } }
          : { name: 'project', params: { project: project.value, stage } }
const pages: Record<string, string[]> = {
  blocks: layingOut,
  cut: ['cut', 'ticket'],
  join: ['join', 'joins', 'join-quilt', 'press-block'],
  measure: ['measure', 'measure-block', 'measured'],
  diagnose: ['diagnose', 'diagnose-block'],
}
const here = (stage: string) => (pages[stage] ?? [stage]).includes(String(route.name))
</script>

<template>
  <nav class="stages" aria-label="Stages of the work">
    <RouterLink
      v-for="(s, i) in stages"
      :key="s.name"
      :to="to(s.name)"
      :class="{ here: here(s.name) }"
      :aria-current="here(s.name) ? 'step' : undefined"
    >
      <b aria-hidden="true">{{ i + 1 }}</b>
      <span class="title">{{ s.title }}</span>
      <span class="line">{{ line(s.name, s.line) }}</span>
    </RouterLink>
  </nav>
</template>

<style scoped>
.stages {
  display: grid;
  grid-template-columns: repeat(9, minmax(0, 1fr));
  background: var(--steel-mid);
  border: 1px solid var(--mat-deep);
  border-radius: 2px;
}

a {
  position: relative;
  display: grid;
  grid-template-columns: auto 1fr;
  column-gap: 7px;
  padding: 5px 6px 15px 8px;
  color: var(--ink);
  text-decoration: none;
  border-left: 2px solid var(--ink);
  line-height: 1.15;
  /* the rule's own marks */
  background:
    repeating-linear-gradient(90deg, var(--ink) 0 1px, transparent 1px 12.5%) left bottom / 100% 6px no-repeat,
    repeating-linear-gradient(90deg, var(--ink) 0 1px, transparent 1px 50%) left bottom / 100% 11px no-repeat;
}

a:first-child {
  border-left: 0;
}

b {
  grid-row: span 2;
  font-size: 26px;
  font-weight: 550;
  font-stretch: 88%;
  align-self: center;
}

.title {
  font-weight: 650;
}

.line {
  font-size: 16px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}

.here {
  background-color: var(--oilskin);
}

@media (width <= 900px) {
  a {
    grid-template-columns: 1fr;
    padding-inline: 5px;
  }

  b {
    font-size: 18px;
    grid-row: auto;
  }

  .title {
    font-stretch: 80%;
    overflow: hidden;
  }

  .line {
    font-size: 16px;
    font-stretch: 75%;
  }
}

@media (width <= 620px) {
  .stages {
    grid-template-columns: repeat(5, minmax(0, 1fr));
  }

  /* Nine in two rows of five: the longest word has room for two. */
  .stages > :last-child {
    grid-column: span 2;
  }

  .line {
    display: none;
  }
}
</style>
