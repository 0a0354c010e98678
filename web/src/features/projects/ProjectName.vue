<script setup lang="ts">
import { nextTick, ref } from 'vue'

import type { Project } from '@/shared/api/client'
import { useOutbox } from '@/shared/api/outbox'

/** The project's name; a button turns it into a field, Enter keeps it, Escape leaves it. */
const props = defineProps<{ project: Project }>()
const { send } = useOutbox()
const editing = ref(false)
const typed = ref('')
const field = ref<HTMLInputElement>()

async function edit() {
  typed.value = props.project.name
  editing.value = true
  await nextTick()
  field.value?.select()
}

function keep() {
  if (!editing.value) return
  editing.value = false
  const name = typed.value.trim()
  if (!name || name === props.project.name) return
  send({
    kind: 'change_project',
    project: props.project.id,
    changes: { name },
    seen: { name: props.project.name },
  })
}
</script>

<template>
  <div class="name">
    <input
      v-if="editing"
      ref="field"
      v-model="typed"
      aria-label="Project name"
      maxlength="120"
      @keydown.enter="keep"
      @keydown.esc="editing = false"
      @blur="keep"
    />
    <template v-else>
      <h1>{{ project.name }}</h1>
      <button type="button" @click="edit">Rename</button>
    </template>
  </div>
</template>

<style scoped>
.name {
  display: flex;
  align-items: baseline;
  gap: 12px;
  flex-wrap: wrap;
}

h1 {
  color: var(--chalk);
  font-size: 26px;
}

input {
  font: inherit;
  font-size: 24px;
  width: 100%;
  padding: 2px 8px;
}

button {
  font: inherit;
  background: none;
  border: 0;
  border-bottom: 2px dashed var(--steel-line);
  color: var(--chalk);
  cursor: pointer;
  padding: 0;
}
</style>
