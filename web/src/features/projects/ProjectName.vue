<script setup lang="ts">
import { NButton, NInput } from 'naive-ui'
import { nextTick, ref } from 'vue'
import { RouterLink } from 'vue-router'

import type { Project } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'

/** The project's name; a button turns it into a field, Enter keeps it, Escape leaves it. */
const props = defineProps<{ project: Project }>()
const { send } = useOutbox()
const editing = ref(false)
const typed = ref('')
const field = ref<InstanceType<typeof NInput>>()

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
    <NInput
      v-if="editing"
      ref="field"
      v-model:value="typed"
      size="large"
      :maxlength="120"
      :input-props="{ 'aria-label': 'Project name' }"
      @keydown.enter="keep"
      @keydown.esc="editing = false"
      @blur="keep"
    />
    <template v-else>
      <h1>
        <RouterLink :to="{ name: 'standing', params: { project: project.id } }">{{
          project.name
        }}</RouterLink>
      </h1>
      <NButton text class="rename" @click="edit">Rename</NButton>
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
  font-size: 26px;
}

h1 a {
  color: var(--chalk);
  text-decoration-thickness: 1px;
  text-underline-offset: 5px;
}

.rename {
  color: var(--chalk);
  border-bottom: 2px dashed var(--steel-line);
}
</style>
