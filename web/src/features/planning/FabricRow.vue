<script setup lang="ts">
import SelectInput from '@/shared/form/SelectInput.vue'
import { useDebounceFn } from '@vueuse/core'
import { NButton, NInput } from 'naive-ui'
import { ref } from 'vue'

import type { Schemas } from '@/shared/api/client'
import { useFocusWhenFresh } from '@/shared/form/fresh'
import { useOutbox } from '@/shared/offline/outbox'
import { editOf, onLeaving, useTyped } from '@/shared/offline/typed'

/** One fabric: its colour and value go out at once, its name a moment after the last key. */
const props = defineProps<{
  project: string
  fabric: Schemas['Fabric']
  used: boolean
  only: boolean
  fresh: boolean
}>()
const emit = defineEmits<{ drop: [] }>()
const { send } = useOutbox()
const pick = ({ name, colour, value }: Record<string, unknown>) =>
  ({ name, colour, value }) as Record<string, string>
const withoutGaps = (c: Record<string, unknown>) =>
  Object.fromEntries(Object.entries(pick(c)).filter(([, v]) => v !== undefined))
const { typed, base, dirty } = useTyped(() => pick(props.fabric), {
  thing: () => `fabric ${props.fabric.id}`,
  flat: withoutGaps,
})

function save() {
  const fields = dirty().filter((f) => f !== 'name' || typed.name!.trim())
  if (!fields.length) return
  send({
    kind: 'change_fabric',
    project: props.project,
    fabric: props.fabric.id,
    ...editOf(fields, typed, base.value),
  })
}
const saveSoon = useDebounceFn(save, 400)
onLeaving(save)

const row = ref<HTMLElement>()
useFocusWhenFresh(row, () => props.fresh, true)

const values = ['light', 'medium', 'dark'].map((v) => ({ value: v, label: v }))
const letter = () => props.fabric.role.toUpperCase()
</script>

<template>
  <div ref="row" class="fabric">
    <input v-model="typed.colour" type="color" :aria-label="`Colour of fabric ${letter()}`" @change="save" />
    <NInput
      v-model:value="typed.name"
      :maxlength="80"
      :input-props="{ 'aria-label': `Name of fabric ${letter()}` }"
      @update:value="saveSoon"
      @blur="save"
    />
    <SelectInput
      v-model="typed.value!"
      :labelled="`Value of fabric ${letter()}`"
      :options="values"
      @update:model-value="save"
    />
    <NButton
      v-if="!only"
      text
      class="drop"
      :aria-label="`Remove fabric ${fabric.name}`"
      :disabled="used"
      :title="used ? 'a unit is made of it' : undefined"
      @click="emit('drop')"
    >
      ×
    </NButton>
  </div>
</template>

<style scoped>
.fabric {
  display: grid;
  grid-template-columns: 34px minmax(0, 1fr) 100px 18px;
  gap: 6px;
}

input[type='color'] {
  width: 34px;
  height: 40px;
  padding: 0;
  border: 1px solid var(--ink);
  background: none;
}

.drop {
  font-size: 22px;
}
</style>
