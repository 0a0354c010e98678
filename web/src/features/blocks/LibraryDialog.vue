<script setup lang="ts">
import SelectInput from '@/shared/form/SelectInput.vue'
import { NModal } from 'naive-ui'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'

import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'
import { kindWords } from '@/shared/words/words'
import UnitPicture from '@/shared/drawing/UnitPicture.vue'

import { type SavedBlock, useLibrary } from './api'

/** Arrangements as pictures to choose from: those that come with it, one's own, and blocks of this project. */
const props = defineProps<{
  title: string
  colours: Record<string, string>
  blocks: SavedBlock[]
  empty?: boolean
}>()
const show = defineModel<boolean>('show', { required: true })
const emit = defineEmits<{ choose: [key: string] }>()
const { data: library } = useLibrary()
const { send } = useOutbox()
const undo = useUndo()
const kind = ref('')

const kinds = computed(() => [...new Set((library.value ?? []).flatMap((b) => b.kinds))])
const holding = computed(() => [
  { value: '', label: 'any unit' },
  ...kinds.value.map((k) => ({ value: k, label: kindWords[k]?.many ?? k })),
])
const shown = computed(() =>
  (library.value ?? []).filter((b) => !kind.value || b.kinds.includes(kind.value)).map((b) => ({ ...b })),
)
const blockNamed = (key: string) => props.blocks.find((b) => b.id === key)

function choose(key: string) {
  show.value = false
  emit('choose', key)
}

function drop(b: { key: string; name: string }) {
  send({ kind: 'delete_own', library: b.key })
  undo(`${b.name} was taken out of your library.`, () => send({ kind: 'restore_own', library: b.key }))
}
</script>

<template>
  <NModal v-model:show="show" preset="card" :title="title" class="library-dialog" :aria-label="title">
    <div class="with">
      Holding
      <SelectInput v-model="kind" class="list" labelled="Holding" :options="holding" />
      <RouterLink :to="{ name: 'foretold' }"
        >Which come out in your hands, and for which there is cloth</RouterLink
      >
    </div>
    <ul class="arrangements">
      <li v-if="empty">
        <button type="button" @click="choose('')">
          <span class="bare" aria-hidden="true" />
          <span><strong>Empty grid</strong>three by three, to lay out</span>
        </button>
      </li>
      <li v-for="b in blocks" :key="b.id">
        <button type="button" @click="choose(b.id)">
          <UnitPicture :drawing="{ ...b.view.picture, alt: '' }" :colours="colours" :size="64" />
          <span
            ><strong>{{ blockNamed(b.id)?.view.name }}</strong
            >of this project</span
          >
        </button>
      </li>
      <li v-for="b in shown" :key="b.key">
        <button type="button" @click="choose(b.key)">
          <UnitPicture :drawing="{ ...b.picture, alt: '' }" :colours="colours" :size="64" />
          <span
            ><strong>{{ b.name }}</strong
            >{{ b.columns }} by {{ b.rows }}</span
          >
        </button>
        <button
          v-if="b.own"
          type="button"
          class="drop"
          :aria-label="`Take ${b.name} out of your library`"
          @click="drop(b)"
        >
          ×
        </button>
      </li>
    </ul>
  </NModal>
</template>

<style>
.library-dialog {
  max-width: 1060px;
}
</style>

<style scoped>
.with {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  margin-bottom: 12px;
}

.list {
  width: 280px;
}

.arrangements {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 8px;
}

li {
  position: relative;
}

button {
  display: grid;
  grid-template-columns: 64px 1fr;
  gap: 12px;
  align-items: center;
  width: 100%;
  font: inherit;
  text-align: left;
  line-height: 1.25;
  color: var(--ink);
  background: #fff;
  border: 1px solid var(--steel-line);
  border-radius: 3px;
  padding: 8px;
  cursor: pointer;
}

button:hover {
  border-color: var(--ink);
  background: #fdf1d2;
}

.drop {
  position: absolute;
  top: 4px;
  right: 4px;
  width: auto;
  display: block;
  border: 0;
  font-size: 22px;
  padding: 0 6px;
}

.bare {
  width: 64px;
  height: 64px;
  border: 2px dashed var(--steel-line);
}

strong {
  display: block;
}
</style>
