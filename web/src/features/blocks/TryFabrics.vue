<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed } from 'vue'

import type { Project, Schemas } from '@/shared/api/client'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'

/** The quilt with two of its fabrics exchanged, every pair of them, to look at side by side. */
const props = defineProps<{
  project: Project
  drawing: Schemas['Drawing']
  colours: Record<string, string>
}>()
const { send } = useOutbox()
const undo = useUndo()
const most = 15

/** Fabrics that are in the picture, since exchanging others would show nothing. */
const used = computed(() => {
  const drawn = [...props.drawing.marks, ...props.drawing.stamps.flatMap((s) => s.marks)]
  const roles = new Set(drawn.map((m) => m.fabric))
  return props.project.fabrics.filter((f) => roles.has(f.role))
})
const pairs = computed(() =>
  used.value
    .flatMap((one, n) => used.value.slice(n + 1).map((other) => ({ one, other })))
    .slice(0, most)
    .map((p) => ({
      ...p,
      key: p.one.role + p.other.role,
      colours: {
        ...props.colours,
        [p.one.role]: props.colours[p.other.role]!,
        [p.other.role]: props.colours[p.one.role]!,
      },
    })),
)

function exchange(one: string, other: string, said: string) {
  const act = { kind: 'exchange_fabrics', project: props.project.id, one, other } as const
  send(act)
  undo(`${said} have changed places.`, () => send(act))
}
</script>

<template>
  <ul v-if="pairs.length" class="pairs">
    <li v-for="p in pairs" :key="p.key">
      <CoreDrawing :drawing="drawing" :colours="p.colours" :width="180" />
      <strong>{{ p.one.name }} and {{ p.other.name }} exchanged</strong>
      <NButton
        size="small"
        :aria-label="`Exchange ${p.one.name} and ${p.other.name}`"
        @click="exchange(p.one.role, p.other.role, `${p.one.name} and ${p.other.name}`)"
        >Exchange them</NButton
      >
    </li>
  </ul>
  <p v-else>There are no two fabrics in this picture yet.</p>
</template>

<style scoped>
.pairs {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 18px 14px;
  margin: 0;
  padding: 0;
  list-style: none;
}

.pairs li {
  display: grid;
  gap: 6px;
  justify-items: start;
  align-content: start;
}
</style>
