<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed, reactive, ref } from 'vue'

import { type Project, Refusal, type Schemas } from '@/shared/api/client'
import { fabricOptions } from '@/shared/form/fabrics'
import RowInput from '@/shared/form/RowInput.vue'
import SelectInput from '@/shared/form/SelectInput.vue'
import { useOutbox } from '@/shared/offline/outbox'
import { clothWords } from '@/shared/words/words'
import Len from '@/shared/words/Len.vue'

import { useShelf } from './api'

/** What lies on the shelf and can be reserved for this project. */
const props = defineProps<{ project: Project }>()
type Shelved = Schemas['Shelved']
const { data } = useShelf()
const { tried } = useOutbox()
const problem = ref('')
const chosen = reactive<Record<string, string>>({})
const counts = reactive<Record<string, string>>({})
const cloths = computed(() => data.value?.cloths ?? [])
const fabrics = computed(() => fabricOptions(props.project))

/** The fabric of the same name, to begin with. */
const roleFor = (c: Shelved) =>
  chosen[c.id] ??
  props.project.fabrics.find((f) => f.name.toLowerCase() === c.cloth.toLowerCase())?.role ??
  props.project.fabrics[0]?.role ??
  ''

async function take(c: Shelved) {
  const fabric = props.project.fabrics.find((f) => f.role === roleFor(c))
  if (!fabric) return
  const count = Number(counts[c.id] ?? c.count)
  if (!Number.isInteger(count) || count < 1) {
    problem.value = `Take a whole number between 1 and ${c.count}.`
    return
  }
  try {
    const ids = { project: props.project.id, fabric: fabric.id, stock: c.id, rest: crypto.randomUUID() }
    await tried({ kind: 'take_shelf_stock', ...ids, count })
    delete counts[c.id]
    problem.value = ''
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    problem.value = error.problem.errors[0]?.message ?? error.message
  }
}
</script>

<template>
  <section v-if="cloths.length" class="sheet" aria-label="On the shelf">
    <h2>On the shelf</h2>
    <p class="soft">Not reserved for any project. What you take is this project's until you put it back.</p>
    <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
    <ul>
      <li v-for="c in cloths" :key="c.id">
        <div class="what">
          <i :style="{ background: c.colour }" aria-hidden="true" />
          <span>
            <strong>{{ c.cloth }}</strong>
            <template v-if="c.other"> and {{ c.other }}</template
            >, {{ c.count }} × {{ clothWords[c.kind]?.name.toLowerCase() }} <Len :of="c.across" /><template
              v-if="c.is_cloth"
            >
              × <Len :of="c.along"
            /></template>
            <span v-if="c.freed_by" class="soft">from {{ c.freed_by }}, deleted</span>
            <span v-else-if="c.name" class="soft">{{ c.name }}</span>
          </span>
        </div>
        <div class="take">
          <RowInput
            :model-value="counts[c.id] ?? String(c.count)"
            numeric
            :labelled="`How many of ${c.cloth} to take`"
            @update:model-value="counts[c.id] = $event"
          />
          <SelectInput
            small
            :model-value="roleFor(c)"
            :labelled="`Take ${c.cloth} for`"
            :options="fabrics"
            @update:model-value="chosen[c.id] = $event"
          />
          <NButton size="small" :aria-label="`Take ${c.cloth} off the shelf`" @click="take(c)">Take</NButton>
        </div>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  display: grid;
  gap: 10px;
}

.what {
  display: grid;
  grid-template-columns: 16px 1fr;
  gap: 8px;
  line-height: 1.3;
}

i {
  width: 15px;
  height: 15px;
  margin-top: 3px;
  border: 1px solid var(--ink);
}

.soft {
  display: block;
}

.take {
  display: grid;
  grid-template-columns: 56px minmax(0, 1fr) auto;
  gap: 6px;
  align-items: center;
  margin-top: 4px;
}
</style>
