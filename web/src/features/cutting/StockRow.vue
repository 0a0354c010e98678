<script setup lang="ts">
import RowInput from '@/shared/form/RowInput.vue'
import SelectInput from '@/shared/form/SelectInput.vue'
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'

import { Refusal } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'
import { editOf, useTyped } from '@/shared/offline/typed'
import { clothWords } from '@/shared/words/words'

import type { Stock } from './api'

/** One cloth in stock, changed in place; what was refused stays typed, with its reason. */
const props = defineProps<{ project: string; stock: Stock; fabric: string }>()
const emit = defineEmits<{ drop: [] }>()
const { tried } = useOutbox()
const problem = ref('')
const { typed, base } = useTyped(
  () => ({
    kind: props.stock.kind as string,
    across: props.stock.across.text,
    along: props.stock.along.text,
    across_most: props.stock.across_most?.text ?? '',
    count: String(props.stock.count),
    name: props.stock.name,
  }),
  { thing: () => `stock ${props.stock.id}` },
)

async function save(field: keyof typeof typed) {
  if (typed[field] === base.value[field]) return void (problem.value = '')
  try {
    const { id, fabric } = props.stock
    const edit = editOf([field], typed, base.value)
    await tried({ kind: 'put_stock', project: props.project, fabric, stock: id, ...edit })
    problem.value = ''
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    problem.value = error.problem.errors[0]?.message ?? error.message
  }
}
/** Cloth that is not cut alike from piece to piece. */
const unsure = computed(
  () => typed.kind === 'fat_quarter' || typed.kind === 'scrap' || typed.across_most !== '',
)
const cloths = computed(() => Object.entries(clothWords).map(([value, w]) => ({ value, label: w.name })))
</script>

<template>
  <div class="cloth">
    <RowInput v-model="typed.count" numeric :labelled="`How many, ${fabric}`" @keep="save('count')" />
    <SelectInput
      v-model="typed.kind"
      small
      :labelled="`Kind of cloth, ${fabric}`"
      :options="cloths"
      @update:model-value="save('kind')"
    />
    <RowInput v-model="typed.across" :labelled="`Across, ${fabric}`" @keep="save('across')" />
    <span aria-hidden="true">×</span>
    <RowInput v-model="typed.along" :labelled="`Along, ${fabric}`" @keep="save('along')" />
    <NButton text class="drop" :aria-label="`Take this ${fabric} away`" @click="emit('drop')"> × </NButton>
    <div v-if="unsure" class="named up">
      <span>across up to</span>
      <RowInput
        v-model="typed.across_most"
        :labelled="`Across up to, ${fabric}`"
        placeholder="as above"
        @keep="save('across_most')"
      />
    </div>
    <p v-if="typed.name" class="soft named">{{ typed.name }}</p>
    <p v-if="problem" class="serious named" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.cloth {
  display: grid;
  grid-template-columns: 46px minmax(0, 1fr) 70px 8px 70px 16px;
  gap: 6px;
  align-items: center;
  margin-top: 6px;
}

.named {
  grid-column: 1 / -1;
  line-height: 1.2;
}

.up {
  display: grid;
  grid-template-columns: auto 90px;
  gap: 6px;
  justify-content: end;
  align-items: center;
}

.drop {
  font-size: 22px;
}
</style>
