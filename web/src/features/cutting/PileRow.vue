<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed } from 'vue'

import type { Project, Schemas } from '@/shared/api/client'
import RowInput from '@/shared/form/RowInput.vue'
import { useFields } from '@/shared/offline/fields'
import { useOutbox } from '@/shared/offline/outbox'
import PileLetter from '@/shared/ui/PileLetter.vue'
import Len from '@/shared/words/Len.vue'
import { plural } from '@/shared/words/words'

/** One pile: what is wanted of it, what was cut and spoiled, and what is left to cut. */
const props = defineProps<{ pile: Schemas['Pile']; project: Project }>()
const emit = defineEmits<{ scraps: []; triangles: [] }>()
const { typedIn } = useOutbox()
const fabric = computed(() => props.project.fabrics.find((f) => f.role === props.pile.fabric))
const further: Record<number, string> = { 2: 'cut once on the diagonal', 4: 'cut on both diagonals' }

const { typed, problems, save } = useFields(
  () => ({ cut: String(props.pile.cut), spoiled: String(props.pile.spoiled) }),
  { thing: () => `pile ${props.project.id} ${props.pile.letter}` },
  (edit) => typedIn({ kind: 'change_pile', project: props.project.id, letter: props.pile.letter, ...edit }),
)

/** Counted by the piles as they were shown: what is cut so far and what was left of it. */
function allCut() {
  typed.cut = String(props.pile.cut_when_done)
  void save('cut')
}
</script>

<template>
  <tr :class="{ done: !pile.left }">
    <th scope="row">
      <PileLetter :letter="pile.letter" :colour="fabric?.colour" />
    </th>
    <td class="what">
      {{ fabric?.name }} <Len :of="pile.width" about /><template v-if="!pile.square">
        × <Len :of="pile.height" about /></template
      ><template v-if="further[pile.gives]">, {{ further[pile.gives] }}</template>
      <span class="soft">{{ pile.name }}{{ pile.turns ? '' : '; keeps its direction' }}</span>
      <span v-if="pile.ready" class="soft">{{ plural(pile.ready, 'triangle') }} for it in stock</span>
      <span v-if="pile.given" class="soft"
        >{{ pile.given }} of them cut smaller for another pile or put with the scraps</span
      >
      <span v-for="(why, f) in problems" :key="f" class="serious" role="alert">{{ why }}</span>
    </td>
    <td class="amount">{{ pile.wanted }}</td>
    <td>
      <RowInput
        v-model="typed.cut"
        numeric
        :labelled="`Cut of pile ${pile.letter}`"
        :wrong="!!problems.cut"
        @keep="save('cut')"
      />
    </td>
    <td>
      <RowInput
        v-model="typed.spoiled"
        numeric
        :labelled="`Spoiled of pile ${pile.letter}`"
        :wrong="!!problems.spoiled"
        @keep="save('spoiled')"
      />
    </td>
    <td class="amount left">{{ pile.left }}</td>
    <td>
      <NButton v-if="pile.left" size="small" :aria-label="`Pile ${pile.letter} is cut`" @click="allCut"
        >All cut</NButton
      >
      <NButton v-else-if="pile.over" size="small" @click="emit('scraps')"
        >{{ pile.over }} to the scraps</NButton
      >
      <NButton v-else-if="pile.odd" size="small" @click="emit('triangles')"
        >Keep {{ pile.odd }} odd {{ pile.odd === 1 ? 'triangle' : 'triangles' }}</NButton
      >
      <span v-else class="soft">done</span>
    </td>
  </tr>
</template>

<style scoped>
.what {
  line-height: 1.25;
}

.what .soft,
.serious {
  display: block;
}

.amount {
  text-align: right;
  font-variant-numeric: tabular-nums;
}

.left {
  font-weight: 700;
}

.done .left {
  font-weight: 400;
}
</style>
