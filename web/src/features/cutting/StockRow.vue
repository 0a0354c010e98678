<script setup lang="ts">
import RowInput from '@/shared/form/RowInput.vue'
import SelectInput from '@/shared/form/SelectInput.vue'
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'

import type { Schemas } from '@/shared/api/client'
import { useFocusWhenFresh } from '@/shared/form/fresh'
import { useFields } from '@/shared/offline/fields'
import type { editOf } from '@/shared/offline/typed'
import { clothWords } from '@/shared/words/words'

/** One cloth in stock or on the shelf, changed in place; what was refused stays typed, with its reason. */
type Row = Omit<Schemas['Stock'], 'role' | 'fabric'> & { cloth?: string }
const props = defineProps<{
  stock: Row
  /** What the fabric is called, for those who hear the page. */
  fabric: string
  thing: string
  /** Whether it was added just now. */
  fresh: boolean
  put: (edit: ReturnType<typeof editOf>) => Promise<unknown>
}>()
const emit = defineEmits<{ drop: [] }>()
const { typed, problems, save } = useFields(
  () => ({
    cloth: props.stock.cloth ?? '',
    kind: props.stock.kind as string,
    across: props.stock.across.text,
    along: props.stock.along.text,
    across_most: props.stock.across_most?.text ?? '',
    count: String(props.stock.count),
    name: props.stock.name,
    other: props.stock.other,
  }),
  { thing: () => props.thing },
  (edit) => props.put(edit),
)
const row = ref<HTMLElement>()
useFocusWhenFresh(row, () => props.fresh, true)
/** Cloth that is not cut alike from piece to piece. */
const unsure = computed(() => props.stock.varies || typed.across_most !== '')
const cloths = computed(() => Object.entries(clothWords).map(([value, w]) => ({ value, label: w.name })))
</script>

<template>
  <div ref="row" class="cloth">
    <RowInput
      v-if="stock.cloth !== undefined"
      v-model="typed.cloth"
      class="named"
      labelled="What the fabric is called"
      :wrong="!!problems.cloth"
      @keep="save('cloth')"
    />
    <RowInput
      v-model="typed.count"
      numeric
      :labelled="`How many, ${fabric}`"
      :wrong="!!problems.count"
      @keep="save('count')"
    />
    <SelectInput
      v-model="typed.kind"
      small
      :labelled="`Kind of cloth, ${fabric}`"
      :options="cloths"
      @update:model-value="save('kind')"
    />
    <template v-if="stock.is_cloth">
      <RowInput
        v-model="typed.across"
        length
        :labelled="`Across, ${fabric}`"
        :wrong="!!problems.across"
        @keep="save('across')"
      />
      <span aria-hidden="true">×</span>
      <RowInput
        v-model="typed.along"
        length
        :labelled="`Along, ${fabric}`"
        :wrong="!!problems.along"
        @keep="save('along')"
      />
    </template>
    <template v-else>
      <span class="of" aria-hidden="true">{{ stock.kind === 'half_square' ? 'raw' : 'of' }}</span>
      <RowInput
        v-model="typed.across"
        class="side"
        :wrong="!!problems.across"
        :labelled="`${stock.kind === 'half_square' ? 'Raw side' : 'Side of the square they were cut from'}, ${fabric}`"
        @keep="save('across')"
      />
    </template>
    <NButton text class="drop" :aria-label="`Take this ${fabric} away`" @click="emit('drop')"> × </NButton>
    <div v-if="stock.is_cloth && unsure" class="named up">
      <span>across up to</span>
      <RowInput
        v-model="typed.across_most"
        :labelled="`Across up to, ${fabric}`"
        placeholder="as above"
        :wrong="!!problems.across_most"
        @keep="save('across_most')"
      />
    </div>
    <div v-if="stock.kind === 'half_square'" class="named up">
      <span>with the fabric</span>
      <RowInput
        v-model="typed.other"
        :labelled="`Second fabric, ${fabric}`"
        :wrong="!!problems.other"
        @keep="save('other')"
      />
    </div>
    <div class="named line">
      <span v-if="typed.name || stock.grain" class="soft"
        >{{ typed.name }}<template v-if="typed.name && stock.grain">; </template>{{ stock.grain }}</span
      >
      <slot />
    </div>
    <p v-for="(why, f) in problems" :key="f" class="serious named" role="alert">{{ why }}</p>
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

.of {
  text-align: right;
}

.side {
  grid-column: span 2;
}

.up {
  display: grid;
  grid-template-columns: auto 90px;
  gap: 6px;
  justify-content: end;
  align-items: center;
}

.line {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}

.line > :only-child {
  margin-left: auto;
}

.drop {
  font-size: 22px;
}
</style>
