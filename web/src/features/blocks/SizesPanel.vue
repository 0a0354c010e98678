<script setup lang="ts">
import { NButton } from 'naive-ui'
import { toRef, watch } from 'vue'

import Len from '@/shared/words/Len.vue'
import { useForm } from '@/shared/offline/typed'
import LengthInput from '@/shared/form/LengthInput.vue'

import type { View } from './api'

/**
 * How large it finishes, its tracks, and the sizes at which everything falls on a mark of the ruler; `grows` where it may
 * finish what refused sizes add up to.
 */
const props = defineProps<{
  view: View
  /** Whose sizes they are: what is typed of them and not taken is kept under this name. */
  of: string
  problems: Record<string, string>
  grows?: boolean
  centre?: boolean
}>()
const finished = defineModel<string>('finished', { required: true })
const emit = defineEmits<{
  tracks: [columns: string, rows: string]
  grow: []
  grid: [columns: number, rows: number]
}>()

const sizesShown = () => ({ columns: props.view.columns, rows: props.view.rows })
const { typed, clear } = useForm(`sizes ${props.of}`, sizesShown)
const columns = toRef(typed, 'columns')
const rows = toRef(typed, 'rows')
watch([() => props.view.columns, () => props.view.rows], clear)
const tracks = () => {
  if (columns.value !== props.view.columns || rows.value !== props.view.rows)
    emit('tracks', columns.value, rows.value)
}
const count = (text: string) => text.split(' ').length
</script>

<template>
  <section class="sheet" aria-label="Sizes of the block">
    <div class="two">
      <LengthInput
        v-model="finished"
        :label="centre ? 'Centre finishes' : 'Block finishes'"
        :problem="problems.finished"
      />
      <p class="joined">
        Joined, before it meets {{ centre ? 'its borders' : 'its neighbours' }}, it measures
        <Len :of="view.sizes.block.unfinished" about /><template
          v-if="view.sizes.block.unfinished.exact !== view.sizes.block.unfinished_height.exact"
        >
          by <Len :of="view.sizes.block.unfinished_height" about /></template
        >, unfinished.
      </p>
    </div>
    <div class="two">
      <div @focusout="tracks" @keydown.enter="tracks">
        <LengthInput v-model="columns" label="Columns" words :problem="problems.columns" />
      </div>
      <div @focusout="tracks" @keydown.enter="tracks">
        <LengthInput v-model="rows" label="Rows" words :problem="problems.rows" />
      </div>
    </div>
    <NButton v-if="grows" size="small" class="grow" @click="emit('grow')">
      Let it finish what they add up to
    </NButton>
    <p class="soft">
      Parts, such as 1 2 1; or finished sizes with commas between, such as 3 1⁄2, 1, 3 1⁄2.
      <NButton text class="quiet" @click="emit('grid', count(view.columns) + 1, count(view.rows))">
        One column more
      </NButton>
      <NButton text class="quiet" @click="emit('grid', count(view.columns), count(view.rows) + 1)">
        One row more
      </NButton>
    </p>
    <div v-if="view.sizes.off_step.length" class="off" role="status">
      <p>
        {{ view.sizes.off_step.map((t) => t.name).join(', ') }} finish
        <Len :of="view.sizes.off_step[0]!.finished" about /> and the like, between the marks of your ruler.
        Sizes that avoid it:
      </p>
      <ul>
        <li v-for="n in view.sizes.nearest" :key="n.finished.exact">
          <NButton size="small" class="pick" @click="finished = n.finished.text">
            {{ n.finished.pretty }}
          </NButton>
          every unit falls on {{ n.step.pretty }}
        </li>
      </ul>
    </div>
    <ul v-if="view.sizes.odd.length" class="odd">
      <li v-for="o in view.sizes.odd" :key="o.said" :class="{ serious: o.serious }">{{ o.said }}</li>
    </ul>
  </section>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
  margin-bottom: 8px;
}

.joined {
  line-height: 1.3;
}

.off {
  margin-top: 10px;
  padding: 8px 12px;
  background: #fdf1d2;
  border-left: 5px solid var(--oilskin);
}

ul {
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 4px;
}

.odd {
  margin-top: 10px;
  padding-left: 18px;
  list-style: disc;
}

.pick {
  font: inherit;
  font-weight: 600;
  min-width: 76px;
  border: 1px solid var(--ink);
  border-radius: 3px;
  background: #fff;
  color: var(--ink);
  cursor: pointer;
}

.grow {
  margin-bottom: 8px;
}

.quiet {
  margin-right: 16px;
}
</style>
