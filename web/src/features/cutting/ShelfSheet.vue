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
const { send, tried } = useOutbox()
const problem = ref('')
const chosen = reactive<Record<string, string>>({})
const counts = reactive<Record<string, string>>({})
const cloths = computed(() => data.value?.cloths ?? [])
const asNew = 'new'
const alike = (c: Shelved) =>
  props.project.fabrics.find((f) => f.name.toLowerCase() === c.cloth.toLowerCase())?.role
const fabrics = (c: Shelved) => [
  ...fabricOptions(props.project),
  ...(alike(c) ? [] : [{ value: asNew, label: `a new fabric, ${c.cloth}` }]),
]

/** The fabric of the same name, to begin with, or a new one of that name. */
const roleFor = (c: Shelved) => chosen[c.id] ?? alike(c) ?? asNew

/** A fabric of its name, put down before it is taken. */
async function newFabric(c: Shelved): Promise<string> {
  const fabric = crypto.randomUUID()
  const changes = { name: c.cloth, ...(c.colour ? { colour: c.colour } : {}) }
  await tried({ kind: 'put_fabric', project: props.project.id, fabric, changes, seen: {} })
  return fabric
}

async function take(c: Shelved) {
  const count = Number(counts[c.id] ?? c.count)
  if (!Number.isInteger(count) || count < 1 || count > c.count) {
    problem.value = `Take between 1 and ${c.count} of ${c.cloth}.`
    return
  }
  const there = props.project.fabrics.find((f) => f.role === roleFor(c))?.id
  let fresh = ''
  try {
    const fabric = there ?? (fresh = await newFabric(c))
    const ids = { project: props.project.id, fabric, stock: c.id, rest: crypto.randomUUID() }
    await tried({ kind: 'take_shelf_stock', ...ids, count })
    delete counts[c.id]
    problem.value = ''
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    problem.value = error.problem.errors[0]?.message ?? error.message
    // Nothing was taken for it.
    if (fresh) send({ kind: 'delete_fabric', project: props.project.id, fabric: fresh })
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
            <span v-if="c.grain" class="soft">{{ c.grain }}</span>
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
            :options="fabrics(c)"
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
