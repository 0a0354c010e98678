<script setup lang="ts">
import { NButton } from 'naive-ui'
import { ref } from 'vue'

import type { Project, Schemas } from '@/shared/api/client'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'

import FabricRow from './FabricRow.vue'

/** The fabrics of a project. */
const props = defineProps<{ project: Project }>()
const { send } = useOutbox()
const undo = useUndo()
const fresh = ref('')

const isUsed = (role: string) => props.project.units.some((u) => u.part_fabrics.includes(role))

function another() {
  const fabric = (fresh.value = crypto.randomUUID())
  send({ kind: 'put_fabric', project: props.project.id, fabric, changes: {}, seen: {} })
}

function drop(f: Schemas['Fabric']) {
  const project = props.project.id
  send({ kind: 'delete_fabric', project, fabric: f.id })
  undo(`${f.name} was removed.`, () => send({ kind: 'restore_fabric', project, fabric: f.id }))
}
</script>

<template>
  <div class="fabrics" role="group" aria-label="Fabrics">
    <FabricRow
      v-for="f in project.fabrics"
      :key="f.id"
      :project="project.id"
      :fabric="f"
      :used="isUsed(f.role)"
      :fresh="f.id === fresh"
      :only="project.fabrics.length === 1"
      @drop="drop(f)"
    />
    <NButton text class="more" @click="another">Another fabric</NButton>
  </div>
</template>

<style scoped>
.fabrics {
  display: grid;
  gap: 8px;
}

.more {
  justify-self: start;
  border-bottom: 2px dashed var(--steel-line);
}
</style>
