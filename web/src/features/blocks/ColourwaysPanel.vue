<script setup lang="ts">
import { fabricOptions } from '@/shared/form/fabrics'
import RowInput from '@/shared/form/RowInput.vue'
import SelectInput from '@/shared/form/SelectInput.vue'
import { NButton } from 'naive-ui'
import { computed } from 'vue'

import type { Project } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'
import { useTyped } from '@/shared/offline/typed'

import type { SavedBlock } from './api'

/** How many of the block, in which fabrics; a twin has two of them exchanged. */
const props = defineProps<{ project: Project; block: SavedBlock; roles: string[] }>()
const { send } = useOutbox()
type Way = { count: string; roles: Record<string, string> }

const kept = () => props.block.colourways.map((w) => ({ count: String(w.count), roles: { ...w.roles } }))
const { typed, base } = useTyped<{ colourways: Way[] }>(() => ({ colourways: kept() }), {
  thing: () => `block ${props.block.id}`,
  flat: ({ colourways }) => (colourways ? { colourways } : {}),
})
const ways = computed(() => typed.colourways)
const name = (role: string) =>
  props.project.fabrics.find((f) => f.role === role)?.name ?? `role ${role.toUpperCase()}`
const two = computed(() => props.roles.slice(0, 2))

function save(now: Way[]) {
  typed.colourways = now
  if (now.some((w) => !/^\d{1,4}$/.test(w.count))) return
  send({
    kind: 'put_block',
    project: props.project.id,
    block: props.block.id,
    changes: { colourways: now },
    seen: { colourways: base.value.colourways },
  })
}

const put = (n: number, way: Partial<Way>) => save(ways.value.map((w, i) => (i === n ? { ...w, ...way } : w)))

function more(twin: boolean) {
  const [a, b] = two.value
  const roles = twin && a && b ? { [a]: b, [b]: a } : {}
  save([...ways.value, { count: '1', roles }])
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
          @keep="put(n, { count: ($event ?? '').trim() || '0' })"
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
        @click="save(ways.filter((_, i) => i !== n))"
      >
        ×
      </NButton>
    </div>
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
}
</style>
