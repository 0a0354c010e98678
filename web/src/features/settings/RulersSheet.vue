<script setup lang="ts">
import { NButton } from 'naive-ui'
import { ref } from 'vue'

import type { Schemas } from '@/shared/api/client'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'

import RulerForm from './RulerForm.vue'

type Ruler = Schemas['Ruler']
defineProps<{ rulers: Ruler[] }>()
const { send } = useOutbox()
const undo = useUndo()
const editing = ref<string | null>(null)
const adding = ref<string | null>(null)

const newKey = () => crypto.randomUUID()
const about = (r: Ruler) =>
  [
    r.corner_diagonal ? '45-degree line into the corner' : 'no line into the corner',
    r.border.exact === '0' ? '' : `${r.border.pretty} before its first mark`,
    r.slotted ? 'slotted' : '',
    r.grooved ? 'grooved for the seam' : '',
    r.goose ? 'made for flying geese' : '',
  ]
    .filter(Boolean)
    .join(', ')

function remove(r: Ruler) {
  send({ kind: 'delete_ruler', ruler: r.id })
  undo(`${r.name} was removed.`, () => {
    send({ kind: 'restore_ruler', ruler: r.id })
  })
}
</script>

<template>
  <section class="sheet" aria-label="Rulers owned">
    <h2>Your rulers</h2>
    <p class="soft">Trim recipes use these and say when none will do.</p>
    <ul>
      <li v-for="r in rulers" :key="r.id">
        <RulerForm v-if="editing === r.id" :id="r.id" :ruler="r" @done="editing = null" />
        <template v-else>
          <span>
            <strong>{{ r.name }}</strong>, {{ r.width.pretty }} × {{ r.height.pretty }}; {{ about(r) }}
          </span>
          <span class="acts">
            <NButton text :aria-label="`Edit ${r.name}`" @click="editing = r.id">Edit</NButton>
            <NButton text :aria-label="`Remove ${r.name}`" @click="remove(r)">Remove</NButton>
          </span>
        </template>
      </li>
      <li v-if="adding">
        <RulerForm :id="adding" @done="adding = null" />
      </li>
    </ul>
    <NButton v-if="!adding" @click="adding = newKey()">Add a ruler</NButton>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 10px 0;
  padding: 0;
}

li {
  display: flex;
  justify-content: space-between;
  gap: 20px;
  padding: 8px 0;
  border-top: 1px solid var(--steel-mid);
}

.acts {
  display: flex;
  gap: 16px;
  flex: none;
}
</style>
