<script setup lang="ts">
import { NModal } from 'naive-ui'

import { plainColours } from '@/shared/lib/colours'
import { kindWords } from '@/shared/words/words'
import UnitPicture from '@/shared/drawing/UnitPicture.vue'

import { useKinds } from './api'

/** Every kind of unit as a picture to choose from. */
defineProps<{ title: string; current?: string }>()
const show = defineModel<boolean>('show', { required: true })
const emit = defineEmits<{ choose: [string] }>()
const { data: kinds } = useKinds()

function choose(kind: string) {
  show.value = false
  emit('choose', kind)
}
</script>

<template>
  <NModal v-model:show="show" preset="card" :title="title" class="kind-dialog" :aria-label="title">
    <ul class="kinds">
      <li v-for="k in kinds ?? []" :key="k.name">
        <button type="button" :aria-current="k.name === current || undefined" @click="choose(k.name)">
          <UnitPicture :drawing="k.picture" :colours="plainColours" :size="56" />
          <span>
            <strong>{{ kindWords[k.name]?.name }}</strong>
            {{ kindWords[k.name]?.line }}
          </span>
        </button>
      </li>
    </ul>
  </NModal>
</template>

<style>
.kind-dialog {
  max-width: 920px;
}
</style>

<style scoped>
.kinds {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 8px;
}

button {
  display: grid;
  grid-template-columns: 56px 1fr;
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

button:hover,
button[aria-current] {
  border-color: var(--ink);
  background: #fdf1d2;
}

strong {
  display: block;
}
</style>
