<script setup lang="ts">
import { fabricOptions } from '@/shared/form/fabrics'
import RowInput from '@/shared/form/RowInput.vue'
import SelectInput from '@/shared/form/SelectInput.vue'
import { NButton } from 'naive-ui'
import { computed } from 'vue'

import type { Project } from '@/shared/api/client'
import { useUndo } from '@/shared/notes/useUndo'
import { useFields } from '@/shared/offline/fields'
import { useOutbox } from '@/shared/offline/outbox'

import type { SavedBlock } from './api'
import { type Way, waysOf } from './colourways'

/** How many of the block, in which fabrics; a twin has two of them exchanged. */
const props = defineProps<{ project: Project; block: SavedBlock; roles: string[] }>()
const { typedIn } = useOutbox()
const { typed, problems, save } = useFields<{ colourways: Way[] }>(
  () => ({ colourways: waysOf(props.block) }),
  {
    thing: () => `block ${props.block.id}`,
    flat: ({ colourways }) => (colourways ? { colourways } : {}),
  },
  (edit) => typedIn({ kind: 'put_block', project: props.project.id, block: props.block.id, ...edit }),
)
const problem = computed(() => problems.colourways ?? '')
const ways = computed(() => typed.colourways)
const name = (role: string) =>
  props.project.fabrics.find((f) => f.role === role)?.name ?? `role ${role.toUpperCase()}`
const two = computed(() => props.roles.slice(0, 2))

function lay(now: Way[]) {
  typed.colourways = now
  void save('colourways')
}

const withChange = (n: number, way: Partial<Way>) =>
  ways.value.map((w, i) => (i === n ? { ...w, ...way } : w))
/** What is typed stands in the field; it is sent when one leaves it. */
const write = (n: number, count: string) => (typed.colourways = withChange(n, { count }))
const put = (n: number, way: Partial<Way>) => lay(withChange(n, way))

const undo = useUndo()
function takeAway(n: number) {
  const gone = ways.value[n]!
  lay(ways.value.filter((_, i) => i !== n))
  undo(`Colourway ${n + 1} was taken away.`, () =>
    lay([...ways.value.slice(0, n), gone, ...ways.value.slice(n)]),
  )
}

function more(twin: boolean) {
  const [a, b] = two.value
  const roles = twin && a && b ? { [a]: b, [b]: a } : {}
  lay([...ways.value, { count: '1', roles }])
}
</script>

<template>
  <section class="sheet" aria-label="How many">
    <h2>How many, in which fabrics</h2>
    <div v-for="(w, n) in ways" :key="n" class="way">
      <div class="role">
        <RowInput
          :model-value="w.count"
          class="count"
          numeric
          :labelled="`Blocks of colourway ${n + 1}`"
          :wrong="problem !== ''"
          @update:model-value="write(n, $event)"
          @keep="put(n, { count: w.count.trim() || '0' })"
        />
        {{ w.count === '1' ? 'block' : 'blocks' }}
      </div>
      <div v-for="r in roles" :key="r" class="role">
        <span>{{ name(r) }}:</span>
        <SelectInput
          class="fabric"
          small
          :labelled="`${name(r)}, in colourway ${n + 1}`"
          :model-value="w.roles[r] ?? r"
          :options="fabricOptions(project, r)"
          @update:model-value="put(n, { roles: { ...w.roles, [r]: $event } })"
        />
      </div>
      <NButton
        v-if="ways.length > 1"
        text
        class="drop"
        :aria-label="`Remove colourway ${n + 1}`"
        @click="takeAway(n)"
      >
        ×
      </NButton>
    </div>
    <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
    <NButton text class="quiet" @click="more(false)">Another colourway</NButton>
    <NButton v-if="two.length === 2" text class="quiet" @click="more(true)">
      A twin, {{ name(two[0]!) }} and {{ name(two[1]!) }} exchanged
    </NButton>
  </section>
</template>

<style scoped>
.way {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
  align-items: center;
  padding: 8px 0;
  border-bottom: 2px dashed var(--steel-mid);
}

.role {
  display: flex;
  gap: 6px;
  align-items: center;
}

.count {
  width: 72px;
}

.fabric {
  width: 170px;
}

.drop {
  font-size: 22px;
}

.quiet {
  margin-right: 16px;
  height: auto;
  white-space: normal;
  text-align: left;
}
</style>
