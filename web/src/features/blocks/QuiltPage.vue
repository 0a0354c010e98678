<script setup lang="ts">
import type { Project } from '@/shared/api/client'
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'

import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'
import Choice from '@/shared/form/Choice.vue'
import SelectInput from '@/shared/form/SelectInput.vue'
import { greys } from '@/shared/lib/colours'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'
import Len from '@/shared/words/Len.vue'
import { plural } from '@/shared/words/words'

import type { Sheet } from './api'
import { waysOf } from './colourways'
import { fit } from './fit'
import PlainPieces from './PlainPieces.vue'
import QuiltForm from './QuiltForm.vue'
import SettingsBeside from './SettingsBeside.vue'
import TryFabrics from './TryFabrics.vue'

/** The quilt put together: how the blocks are set, what goes between and round them, and what to cut for it. */
const props = defineProps<{ project: Project; sheet: Sheet; colours: Record<string, string> }>()
const { send, typedIn } = useOutbox()
const undo = useUndo()
const seen = ref('colours')
const scale = ref(4)
const scales = [1, 2, 4, 8, 10, 16].map((n) => ({ value: n, label: n === 1 ? 'full size' : `one to ${n}` }))
const byHand = computed(() => props.sheet.quilt.setting === 'by_hand')
/** What is pieced beside the blocks: strips of borders, parts of blocks. */
const parts = computed(() => props.sheet.blocks.filter((b) => b.part && b.part !== 'centre'))
/** Of every block as many are planned as the quilt takes, until it is undone. */
function planTaken() {
  const changed = props.sheet.blocks.flatMap((block) => {
    const takes = props.sheet.quilt.takes.filter((t) => t.block === block.id && t.takes !== t.planned)
    if (!takes.length) return []
    const before = waysOf(block)
    const after = before.map((w, n) => {
      const taken = takes.find((t) => t.colourway === n)
      return taken ? { ...w, count: String(taken.takes) } : w
    })
    return [{ block: block.id, before, after }]
  })
  const plan = (from: 'before' | 'after', to: 'before' | 'after') =>
    changed.forEach((c) =>
      typedIn({
        kind: 'put_block',
        project: props.project.id,
        block: c.block,
        changes: { colourways: c[to] },
        seen: { colourways: c[from] },
      }),
    )
  plan('before', 'after')
  undo('As many blocks are planned as the quilt takes.', () => plan('after', 'before'))
}
const begin = () =>
  send({ kind: 'change_quilt', project: props.project.id, changes: { begun: true }, seen: {} })
</script>

<template>
  <main v-if="!sheet.quilt.begun" id="main" class="sheet none">
    <h2>No quilt is put together yet</h2>
    <p>
      {{
        sheet.quilt.counted
          ? `${sheet.quilt.counted === 1 ? 'One block is' : `${sheet.quilt.counted} blocks are`} wanted. Put together, they are set in rows and columns; sashing, borders and binding take cloth from then on.`
          : 'Lay out a block and say how many of it you want; then the quilt is put together from them.'
      }}
    </p>
    <NButton v-if="sheet.quilt.counted" type="primary" @click="begin">Put the quilt together</NButton>
  </main>
  <main v-else id="main" class="quilt">
    <h2 class="visually-hidden">Quilt</h2>
    <QuiltForm class="choices" :project="project" :sheet="sheet" :quilt="sheet.quilt" />
    <div class="result">
      <section v-if="sheet.quilt.sizes" class="sheet sizes" aria-label="Sizes of the quilt">
        <div class="big">
          <span>Quilt finishes</span>
          <strong
            ><Len :of="sheet.quilt.sizes.width" about /> × <Len :of="sheet.quilt.sizes.height" about
          /></strong>
        </div>
        <div>
          <span>Unfinished, before binding</span>
          <strong
            ><Len :of="sheet.quilt.sizes.unfinished_width" about /> ×
            <Len :of="sheet.quilt.sizes.unfinished_height" about
          /></strong>
        </div>
        <div v-if="!byHand">
          <span>{{ plural(sheet.quilt.sizes.blocks, 'block') }} finishing</span>
          <strong
            ><Len :of="sheet.quilt.sizes.block_width" about /> ×
            <Len :of="sheet.quilt.sizes.block_height" about
          /></strong>
        </div>
      </section>
      <p v-if="sheet.quilt.refusal" class="sheet" role="alert">{{ sheet.quilt.refusal.message }}</p>
      <section class="sheet picture" aria-label="Picture of the quilt">
        <Choice
          v-if="sheet.quilt.picture"
          v-model="seen"
          label="Seen"
          :options="[
            { value: 'colours', label: 'in colour' },
            { value: 'values', label: 'in greys, by value' },
            { value: 'exchanged', label: 'fabrics exchanged' },
            { value: 'beside', label: 'beside other settings' },
          ]"
        />
        <SettingsBeside v-if="seen === 'beside'" :project="project" :quilt="sheet.quilt" :colours="colours" />
        <TryFabrics
          v-else-if="seen === 'exchanged' && sheet.quilt.picture"
          :project="project"
          :drawing="sheet.quilt.picture"
          :colours="colours"
        />
        <CoreDrawing
          v-else-if="sheet.quilt.picture"
          :drawing="sheet.quilt.picture"
          :colours="seen === 'values' ? greys(project.fabrics) : colours"
          :width="fit(sheet.quilt.picture)"
        />
        <p v-else>Lay out a block first; then the quilt shows here.</p>
        <p v-if="sheet.quilt.picture" class="note papers">
          On paper:
          <a :href="`/api/projects/${project.id}/papers/quilt.pdf`" target="_blank">one page</a>,
          <a :href="`/api/projects/${project.id}/papers/quilt.pdf?scale=${scale}`" target="_blank"
            >one to {{ scale }}, tiled</a
          >,
          <a :href="`/api/projects/${project.id}/quilt.svg?scale=${scale}`" target="_blank"
            >one to {{ scale }} as SVG</a
          >
          <SelectInput v-model="scale" small class="scale" labelled="Scale" :options="scales" />
        </p>
        <p v-if="sheet.quilt.takes_said" class="note">
          {{ sheet.quilt.takes_said }}
          <NButton text class="quiet" @click="planTaken">Plan so many</NButton>
        </p>
        <p v-if="sheet.quilt.left_out.length" class="note">
          Not in this picture: {{ sheet.quilt.left_out.join(', ') }} (another size, an empty place, or none
          wanted).
        </p>
        <p v-for="n in sheet.quilt.sizes?.notes ?? []" :key="n" class="note">{{ n }}</p>
      </section>
    </div>
    <div class="after">
      <section v-if="parts.length" class="sheet" aria-label="Pieced beside the blocks">
        <h2>Pieced beside the blocks</h2>
        <ul class="parts">
          <li v-for="b in parts" :key="b.id">
            <RouterLink :to="{ name: 'join', params: { project: project.id, block: b.id } }">{{
              b.view.name
            }}</RouterLink>
            <span>
              {{ b.colourways.reduce((n, w) => n + w.count, 0) }} of them,
              {{ plural(b.view.spots.length, 'unit') }}
              each
            </span>
          </li>
        </ul>
      </section>
      <PlainPieces v-if="sheet.quilt.sizes" :project="project" :quilt="sheet.quilt" />
    </div>
  </main>
</template>

<style scoped>
.none {
  display: grid;
  gap: 14px;
  justify-items: start;
  max-width: 680px;
}

.quilt {
  display: grid;
  grid-template: auto 1fr / clamp(296px, 36vw, 372px) minmax(0, 1fr);
  gap: 12px 14px;
  align-items: start;
}

.choices {
  grid-row: 1 / span 2;
}

/* What is chosen far down moves the picture that stands at the top: both stay in sight. */
@media (width > 1000px) {
  .choices {
    position: sticky;
    top: 0;
    max-height: 100vh;
    overflow-y: auto;
  }
}

.result,
.after {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}

.sizes {
  position: sticky;
  top: 0;
  z-index: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 34px;
  padding-block: 10px;
}

.sizes div {
  display: grid;
  line-height: 1.2;
}

.sizes .big strong {
  font-size: 20px;
}

.note {
  margin-top: 8px;
}

.picture {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}

.papers {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
}

.scale {
  width: 130px;
}

.parts {
  display: grid;
  gap: 4px;
  margin: 6px 0 0;
  padding: 0;
  list-style: none;
}

.parts li {
  display: grid;
  grid-template-columns: minmax(180px, auto) 1fr;
  gap: 14px;
}

/* The list of pieces needs the width of both. */
@media (width <= 1000px) {
  .choices {
    grid-row: 1;
  }

  .result {
    position: sticky;
    top: 0;
  }

  .after {
    grid-column: 1 / -1;
  }
}

@media (width <= 760px) {
  .quilt {
    grid-template: none / minmax(0, 1fr);
  }

  .choices {
    grid-row: auto;
  }

  .result {
    position: static;
  }
}
</style>
