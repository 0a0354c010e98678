<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'

import type { Schemas } from '@/shared/api/client'
import { StockRow, useShelf } from '@/features/cutting'
import { useUndo } from '@/shared/notes/useUndo'
import { useOutbox } from '@/shared/offline/outbox'
import { clothWords } from '@/shared/words/words'

/** The workroom's cloth that no project has reserved: entered here, taken on a project's Cut page. */
const { data, error } = useShelf()
const { send, typedIn } = useOutbox()
const undo = useUndo()
const fresh = ref('')
type Shelved = Schemas['Shelved']
type Edit = { changes: Schemas['ShelfPatchRequest']; seen: Schemas['ShelfPatchRequest'] }
const cloths = computed(() => data.value?.cloths ?? [])

function add(kind: Shelved['kind']) {
  const shelved = (fresh.value = crypto.randomUUID())
  send({ kind: 'put_on_shelf', shelved, changes: { kind, count: '1' }, seen: {} })
}

const put = (shelved: string, edit: object) => typedIn({ kind: 'put_on_shelf', shelved, ...(edit as Edit) })

function drop(c: Shelved) {
  send({ kind: 'delete_shelved', shelved: c.id })
  undo(`${c.cloth} was taken away.`, () => send({ kind: 'restore_shelved', shelved: c.id }))
}
</script>

<template>
  <main id="main" class="page">
    <h1>Shelf</h1>
    <section class="sheet" aria-label="On the shelf">
      <p class="soft">
        Cloth, triangles and spare units that no project has reserved. A project takes what it needs on its
        Cut page, and puts back what it does not; so no cloth is counted twice.
      </p>
      <p v-if="error && !data" role="alert">{{ error.message }}</p>
      <p v-else-if="data && !cloths.length">Nothing lies here yet.</p>
      <ul>
        <li v-for="c in cloths" :key="c.id">
          <i :style="{ background: c.colour }" aria-hidden="true" />
          <p v-if="c.freed_by">
            <strong>{{ c.cloth }}</strong>, {{ c.count }} × {{ clothWords[c.kind]?.name.toLowerCase() }}
            {{ c.across.pretty }}<template v-if="c.is_cloth"> × {{ c.along.pretty }}</template>
            <span class="soft">free since {{ c.freed_by }} was deleted</span>
          </p>
          <StockRow
            v-else
            :stock="c"
            :fabric="c.cloth"
            :thing="`shelved ${c.id}`"
            :fresh="c.id === fresh"
            :put="(edit) => put(c.id, edit)"
            @drop="drop(c)"
          />
        </li>
      </ul>
      <div class="adds">
        <span>Add:</span>
        <NButton
          v-for="(w, k) in clothWords"
          :key="k"
          text
          class="quiet"
          @click="add(k as Shelved['kind'])"
          >{{ w.name }}</NButton
        >
      </div>
    </section>
  </main>
</template>

<style scoped>
.page {
  max-width: 760px;
  margin: 0 auto;
  padding: 28px 24px;
  display: grid;
  gap: 14px;
}

h1 {
  color: var(--chalk);
}

ul {
  list-style: none;
  margin: 12px 0;
  padding: 0;
}

li {
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr);
  gap: 12px;
  padding: 8px 0;
  border-bottom: 2px dashed var(--steel-mid);
}

i {
  width: 20px;
  height: 20px;
  margin-top: 10px;
  border: 1px solid var(--ink);
}

.soft {
  display: block;
}

.adds {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
</style>
