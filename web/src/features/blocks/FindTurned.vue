<script setup lang="ts">
import { NButton } from 'naive-ui'
import { ref, shallowRef, watch } from 'vue'

import { Refusal, type Project, type Schemas } from '@/shared/api/client'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'

import { findTurned, look, type SavedBlock, type Spot, spotsOf, type View } from './api'
import type { Edit } from './useLayout'
import GridBoard from './GridBoard.vue'

/** What lies on the table, entered by turning what is meant; the core says what does not lie as it should. */
const props = defineProps<{ project: Project; block: SavedBlock; colours: Record<string, string> }>()
const seen = shallowRef<View>(props.block.view)
const finding = shallowRef<Schemas['Finding'] | null>(null)
const cursor = ref<[number, number]>([0, 0])
const problem = ref('')

// Read again and the same, it takes nothing away that was laid on the table.
watch(() => JSON.stringify(props.block.view.pattern), reset)

function reset() {
  seen.value = props.block.view
  finding.value = null
}

const covers = (s: Spot, [c, r]: [number, number]) =>
  c >= s.column && c < s.column + s.across && r >= s.row && r < s.row + s.down
const here = () => spotsOf(seen.value).filter((s) => covers(s, cursor.value))

async function change(edit: Edit) {
  try {
    const body = {
      pattern: seen.value.pattern,
      finished: props.block.finished.text,
      edit,
      block: props.block.id,
    }
    seen.value = await look(props.project.id, body)
    finding.value = await findTurned(props.block.id, seen.value.pattern)
    problem.value = ''
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    problem.value = error.message
  }
}

const act = (what: Edit['do'], more = {}) =>
  change({ do: what, spots: here().map((s) => [s.column, s.row]), ...more })

function key(e: KeyboardEvent) {
  const step: Record<string, [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, -1],
    ArrowDown: [0, 1],
  }
  const [c, r] = cursor.value
  const by = step[e.key]
  const s = here()[0]
  if (by && s) {
    const next: [number, number] = [
      by[0] > 0 ? s.column + s.across : c + by[0],
      by[1] > 0 ? s.row + s.down : r + by[1],
    ]
    if (spotsOf(seen.value).some((p) => covers(p, next))) cursor.value = next
  } else if (['t', 'Enter', ' '].includes(e.key)) void act('turn')
  else if (e.key === 'm') void act('mirror')
  else return
  e.preventDefault()
}
</script>

<template>
  <section class="sheet" aria-label="Find the turned unit">
    <h2>Find the turned unit</h2>
    <p class="soft">
      Lay it here as it lies on the table: a click turns a unit, M mirrors the one chosen. What is meant is
      the block as saved.
    </p>
    <div class="two">
      <GridBoard
        :view="seen"
        :colours="colours"
        :cursor="cursor"
        :chosen="here()"
        :width="360"
        @go="cursor = $event"
        @lay="act('turn')"
        @move="(from, to) => change({ do: 'move', from, to })"
        @key="key"
      />
      <div class="told" aria-live="polite">
        <div class="acts">
          <NButton size="small" @click="act('mirror')">Mirror it</NButton>
          <NButton size="small" @click="change({ do: 'turn_whole' })">Turn the whole block</NButton>
          <NButton size="small" @click="reset">As it is meant</NButton>
        </div>
        <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
        <template v-if="finding">
          <p class="said">{{ finding.said }}</p>
          <ul>
            <li v-for="f in finding.faults" :key="`${f.column} ${f.row}`">{{ f.said }}</li>
          </ul>
          <CoreDrawing
            v-if="finding.faults.length"
            :drawing="finding.picture"
            :colours="colours"
            :width="240"
          />
        </template>
      </div>
    </div>
  </section>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 424px) minmax(0, 1fr);
  gap: 22px;
  margin-top: 10px;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 10px;
}

.said {
  font-weight: 600;
  font-size: 18px;
}

@media (width <= 760px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
