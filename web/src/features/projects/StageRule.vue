<script setup lang="ts">
import { computed, toRefs } from 'vue'
import { RouterLink, useRoute } from 'vue-router'

const props = defineProps<{ project: string; unit?: string }>()

/** The stages as marks on a steel rule, in working order. */
const stages = [
  { name: 'blocks', title: 'Lay out', line: 'blocks' },
  { name: 'plan', title: 'Plan', line: 'sizes' },
  { name: 'cut', title: 'Cut', line: 'from cloth' },
  { name: 'trim', title: 'Trim', line: 'to size' },
  { name: 'measure', title: 'Measure', line: 'readings' },
  { name: 'diagnose', title: 'Diagnose', line: 'and mend' },
]
const layingOut = ['blocks', 'lay', 'look', 'join', 'what-if', 'quilt', 'scraps', 'counts']
const route = useRoute()
const { project, unit } = toRefs(props)

const block = computed(() => (typeof route.params.block === 'string' ? route.params.block : ''))

/** Laying out and cutting belong to the project; measuring and diagnosing to the block in hand, if there is one; every other
 * stage to a unit, the first one when none is in hand. */
const to = (stage: string) =>
  stage === 'blocks' || stage === 'cut'
    ? { name: stage, params: { project: project.value } }
    : block.value && (stage === 'measure' || stage === 'diagnose')
      ? { name: `${stage}-block`, params: { project: project.value, block: block.value } }
      : unit.value
        ? { name: stage, params: { project: project.value, unit: unit.value } }
        : { name: 'project', params: { project: project.value, stage } }
const pages: Record<string, string[]> = {
  blocks: layingOut,
  cut: ['cut', 'ticket'],
  measure: ['measure', 'measure-block'],
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
      <span class="line">{{ s.line }}</span>
    </RouterLink>
  </nav>
</template>

<style scoped>
.stages {
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  background: var(--steel-mid);
  border: 1px solid var(--mat-deep);
  border-radius: 2px;
}

a {
  position: relative;
  display: grid;
  grid-template-columns: auto 1fr;
  column-gap: 10px;
  padding: 5px 12px 15px;
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
  font-size: 28px;
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

@media (width <= 620px) {
  a {
    grid-template-columns: 1fr;
    padding-inline: 5px;
  }

  .title {
    font-stretch: 75%;
    overflow: hidden;
  }

  .line {
    display: none;
  }

  b {
    font-size: 20px;
    grid-row: span 1;
  }
}
</style>
