<script setup lang="ts">
import { useEventListener, useSwipe } from '@vueuse/core'
import { NButton, NProgress } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'

import { Refusal, type Schemas } from '@/shared/api/client'
import { ClockStart, WorkClock } from '@/features/clock'
import { useBench, useProject } from '@/features/projects'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'
import { coloursOf } from '@/shared/lib/colours'
import WaitingFor from '@/shared/ui/WaitingFor.vue'
import Len from '@/shared/words/Len.vue'

import CountDown from './CountDown.vue'
import { useAwake } from './useAwake'
import { useDone } from './useDone'
import { useSequence } from './useSequence'

/**
 * The bench: one step at a time, to be read at arm's length and worked with one thumb. Where one is stands in the address and in
 * what is done, so that a reload or an empty battery loses nothing.
 */
const props = defineProps<{ project: string }>()
const route = useRoute()
const router = useRouter()
const { data: project } = useProject(() => props.project)
const { data: bench } = useBench(() => props.project)
const colours = computed(() => coloursOf(project.value?.fabrics ?? []))
useAwake()

const of = computed(() => (typeof route.query.of === 'string' ? route.query.of : null))
/** Nothing where the address names no unit or block as it should: then one goes on where the work is. */
const subject = computed(() => {
  const told = String(route.query.subject ?? '')
  const found = (['units', 'blocks', 'quilt'] as const).find((s) => s === told)
  return found === 'quilt' || /^[\da-f-]{36}$/.test(of.value ?? '') ? found : undefined
})

/** Without anything in the address: where to go on. */
watch(
  [bench, subject],
  () => {
    if (subject.value || !bench.value?.next) return
    const { stage, of: next } = bench.value.next
    const where: Record<string, string> = { sew: 'units', trim: 'units', join: 'blocks', quilt: 'quilt' }
    if (where[stage]) void router.replace({ query: { subject: where[stage], ...(next ? { of: next } : {}) } })
  },
  { immediate: true },
)
const { tasks, title, tally, trimTo, trimCautions, error, ready } = useSequence(
  () => props.project,
  () => subject.value ?? '',
  () => of.value,
)
const done = computed(() => useDoneOf(subject.value ?? 'units'))
const byUnits = useDone(
  () => props.project,
  'units',
  () => of.value,
)
const byBlocks = useDone(
  () => props.project,
  'blocks',
  () => of.value,
)
const byQuilt = useDone(
  () => props.project,
  'quilt',
  () => null,
)
const useDoneOf = (s: Schemas['DoneRequest']['subject']) =>
  s === 'units' ? byUnits : s === 'blocks' ? byBlocks : byQuilt

const isDone = (i: number) => {
  const t = tasks.value[i]
  return !!t && done.value.isDone(t.lot, t.step, t.done)
}
/** After the steps of a unit comes its trimming, counted down. */
const trims = computed(() => subject.value === 'units' && !!tally.value?.to_make)
const last = computed(() => tasks.value.length - 1 + (trims.value ? 1 : 0))
const firstLeft = computed(() => {
  const i = tasks.value.findIndex((_, n) => !isDone(n))
  return i < 0 ? (trims.value ? tasks.value.length : tasks.value.length - 1) : i
})
/** Kept by the name of the step: a plan that changes meanwhile does not lead astray. */
const at = computed(() => {
  const name = String(route.query.at ?? '')
  if (name === 'trim' && trims.value) return tasks.value.length
  const i = tasks.value.findIndex((t) => t.id === name)
  return i < 0 ? firstLeft.value : i
})
const task = computed(() => tasks.value[at.value])
const trimming = computed(() => trims.value && at.value === tasks.value.length)
const finished = computed(() => tasks.value.length > 0 && tasks.value.every((_, i) => isDone(i)))

const go = (i: number) => {
  const n = Math.max(0, Math.min(last.value, i))
  const name = n === tasks.value.length ? 'trim' : tasks.value[n]?.id
  void router.replace({ query: { ...route.query, at: name } })
}
/** The next one that is not done; the one after this when all are. */
function onward(from: number) {
  for (let i = from + 1; i < tasks.value.length; i++) if (!isDone(i)) return go(i)
  go(from + 1)
}
async function finish() {
  const t = task.value
  const i = at.value
  if (!t) return
  if (isDone(i)) return go(i + 1)
  const sent = done.value.putStep(t.lot, t.step, t.stage)
  onward(i)
  // Refused: it is said, and one stands before it again.
  if (!(await sent)) go(i)
}
function notDone() {
  const t = task.value
  if (t) done.value.takeBack(t.lot, t.step, t.done)
}
const back = () => go(at.value - 1)
const pause = () => void router.push({ name: 'standing', params: { project: props.project } })

const page = ref<HTMLElement | null>(null)
useSwipe(page, {
  threshold: 60,
  onSwipeEnd: (_e, direction) => {
    if (direction === 'left') go(at.value + 1)
    if (direction === 'right') back()
  },
})
useEventListener(window, 'keydown', (e: KeyboardEvent) => {
  const on = e.target instanceof HTMLElement ? e.target : undefined
  if (on?.closest('input, textarea, [role=dialog]')) return
  const held = on?.closest('button, a')
  if (e.key === 'ArrowRight') go(at.value + 1)
  else if (e.key === 'ArrowLeft') back()
  else if (e.key === 'Escape') pause()
  else if (e.key === ' ' && !held) void finish()
  else return
  e.preventDefault()
})
/** What is timed here: the steps of joining a block are its joining, pressing among them. */
const worked = computed(() => {
  if (subject.value === 'quilt') return 'quilt' as const
  if (subject.value === 'blocks') return 'join' as const
  if (trimming.value) return 'trim' as const
  return task.value?.stage === 'press' ? ('press' as const) : task.value ? ('sew' as const) : undefined
})
const share = computed(() => {
  const n = tasks.value.length
  return n ? Math.round((100 * tasks.value.filter((_, i) => isDone(i)).length) / n) : 0
})
const mind = computed(() => (trimming.value ? trimCautions.value : (task.value?.cautions ?? [])))
const others = computed(() => [
  ...(bench.value?.units ?? [])
    .filter((u) => u.sewn_here && !u.tally.finished && u.unit !== of.value)
    .map((u) => ({ name: u.title, query: { subject: 'units', of: u.unit } })),
  ...(bench.value?.blocks ?? [])
    .filter((b) => b.joined < b.count && b.block !== of.value)
    .map((b) => ({ name: b.name, query: { subject: 'blocks', of: b.block } })),
  ...(bench.value?.quilt_left && subject.value !== 'quilt'
    ? [{ name: 'The quilt', query: { subject: 'quilt' } }]
    : []),
])
/** Trimming is a chore of its own: from one kind of unit on to the next that has some to trim. */
const nextTrim = computed(() =>
  bench.value?.units.find((u) => u.sewn_here && u.unit !== of.value && u.tally.trim_now),
)
const allToTrim = computed(() =>
  (bench.value?.units ?? []).filter((u) => u.sewn_here).reduce((n, u) => n + u.tally.trim_now, 0),
)
const onTo = computed(() =>
  nextTrim.value
    ? {
        name: `Trim on: ${nextTrim.value.title}`,
        query: { subject: 'units', of: nextTrim.value.unit, at: 'trim' },
      }
    : others.value[0] && { name: `On to ${others.value[0].name}`, query: others.value[0].query },
)
const nothing = computed(() => !!bench.value && !bench.value.next && !subject.value)
const refused = computed(() => (error.value instanceof Refusal ? error.value.message : ''))
</script>

<template>
  <main id="main" ref="page" class="page">
    <header>
      <RouterLink :to="{ name: 'standing', params: { project: props.project } }">{{
        project?.name
      }}</RouterLink>
      <h1>{{ subject ? title : 'At the bench' }}</h1>
      <span class="clocks">
        <WorkClock />
        <ClockStart v-if="worked" :project="props.project" :stage="worked" />
      </span>
      <NProgress type="line" :percentage="share" :show-indicator="false" :height="8" aria-hidden="true" />
    </header>
    <section v-if="nothing || (ready && !tasks.length && !trimming)" class="sheet">
      <h2>Nothing is waiting here</h2>
      <p>All that is planned is sewn, trimmed and joined, or nothing is planned yet.</p>
    </section>
    <section v-else-if="refused" class="sheet" role="alert">
      <h2>This cannot be worked yet</h2>
      <p>{{ refused }}</p>
    </section>
    <template v-else-if="task || trimming">
      <section
        class="sheet now"
        :data-step="task?.id"
        aria-live="polite"
        :aria-label="trimming ? 'Trim' : task?.title"
      >
        <template v-if="trimming && tally">
          <h2>Trim</h2>
          <template v-if="trimTo">
            <div class="pictures">
              <CoreDrawing :drawing="trimTo.picture" :colours="colours" :width="220" />
            </div>
            <p class="size">to <Len :of="trimTo.width" about /> × <Len :of="trimTo.height" about /></p>
          </template>
          <p v-if="nextTrim" class="where">{{ allToTrim }} to trim in all, sewn already.</p>
          <CountDown :project="props.project" :unit="of!" :tally="tally" large />
          <RouterLink :to="{ name: 'trim', params: { project: props.project, unit: of! } }"
            >How to lay the ruler</RouterLink
          >
        </template>
        <template v-else-if="task">
          <p class="where">{{ task.where }}</p>
          <h2>
            <b aria-hidden="true">{{ task.n }}</b> {{ task.title }}
            <span v-if="isDone(at)" class="ticked">done</span>
          </h2>
          <div class="pictures">
            <CoreDrawing v-if="task.front" :drawing="task.front" :colours="colours" :width="440" />
            <CoreDrawing
              v-if="task.back"
              :drawing="task.back"
              :colours="colours"
              :width="220"
              class="second"
            />
          </div>
          <p v-if="task.size" class="size">
            <Len :of="task.size.width" about /> × <Len :of="task.size.height" about />
          </p>
          <div class="said">
            <p v-for="s in task.said" :key="s">{{ s }}</p>
            <p v-for="l in task.look" :key="l" class="look">{{ l }}</p>
          </div>
        </template>
      </section>
      <nav class="thumb" aria-label="Steps">
        <NButton size="large" :disabled="at < 1" @click="back">Back</NButton>
        <NButton v-if="!trimming" type="primary" size="large" class="main" @click="finish">
          {{ isDone(at) ? 'Next' : 'Done' }}
        </NButton>
        <NButton
          v-if="trimming && onTo"
          type="primary"
          size="large"
          class="main"
          @click="router.replace({ query: onTo.query })"
        >
          {{ onTo.name }}
        </NButton>
        <NButton v-if="!trimming && isDone(at)" size="large" @click="notDone">Not done after all</NButton>
        <NButton v-else size="large" @click="pause">Pause</NButton>
      </nav>
      <section v-if="mind.length" class="mind" aria-label="Cautions">
        <p v-for="c in mind" :key="c">{{ c }}</p>
      </section>
      <p v-if="finished && !trimming && subject !== 'units'" class="on-mat" role="status">
        Everything here is done.
        <RouterLink v-for="o in others.slice(0, 1)" :key="o.name" :to="{ query: o.query }" replace
          >On to {{ o.name }}</RouterLink
        >
      </p>
    </template>
    <WaitingFor v-else what="the bench" />
  </main>
</template>

<style scoped>
.page {
  max-width: 1100px;
  min-height: 100vh;
  margin: 0 auto;
  padding: 10px 16px 96px;
  display: grid;
  gap: 10px;
  align-content: start;
  touch-action: pan-y;
}

header {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 2px 16px;
  align-items: baseline;
  color: var(--chalk);
}

.clocks {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}

header a,
.on-mat,
.on-mat a {
  color: var(--chalk);
}

header :deep(.n-progress) {
  grid-column: 1 / -1;
}

h1 {
  font-size: 22px;
}

h2 {
  font-size: 34px;
}

h2 b {
  display: inline-block;
  min-width: 1.5em;
  padding: 0 4px;
  text-align: center;
  background: var(--ink);
  color: #fff;
}

.ticked {
  font-size: 18px;
  padding: 2px 10px;
  background: var(--oilskin);
}

.where {
  font-size: 20px;
  color: var(--ink-soft);
}

.now {
  display: grid;
  gap: 10px;
}

.pictures {
  display: flex;
  gap: 18px;
  align-items: end;
  justify-content: center;
}

.pictures :deep(.drawing) {
  overflow: hidden;
  max-height: 44vh;
}

.pictures .second {
  max-height: 24vh;
}

.size {
  font-size: 38px;
  font-weight: 600;
}

.said {
  font-size: 26px;
  line-height: 1.35;
  display: grid;
  gap: 6px;
}

.look {
  border-left: 6px solid var(--oilskin);
  padding-left: 12px;
}

.thumb {
  position: fixed;
  inset: auto 0 0;
  z-index: 5;
  display: grid;
  grid-template-columns: 1fr 2fr 1fr;
  gap: 10px;
  padding: 10px 16px;
  background: var(--mat-deep);
}

.thumb :deep(.n-button) {
  min-height: 64px;
  font-size: 22px;
  white-space: normal;
}

.thumb :deep(.n-button:not(.main)) {
  background: var(--steel-light);
}

.mind {
  color: var(--chalk);
  display: grid;
  gap: 2px;
}

@media (height <= 500px) {
  .pictures :deep(.drawing) {
    max-height: 36vh;
  }
}

@media (width <= 560px) {
  h2 {
    font-size: 26px;
  }

  .said {
    font-size: 20px;
  }

  .pictures .second {
    display: none;
  }

  .thumb :deep(.n-button) {
    font-size: 18px;
    padding: 0 8px;
  }
}
</style>
