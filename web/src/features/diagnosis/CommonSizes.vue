<script setup lang="ts">
import { NTable } from 'naive-ui'
import { computed } from 'vue'

import type { Schemas } from '@/shared/api/client'
import Len from '@/shared/words/Len.vue'
import { plural } from '@/shared/words/words'

/** Sizes that all blocks could be brought to, side by side, with what each costs. */
const props = defineProps<{ name: string; sizes: Schemas['CommonSizes']; measured: number; borne: string }>()
const words: [string, string][] = [
  ['as_it_is', 'as they are'],
  ['trim', 'to trim'],
  ['tips', 'lose their points'],
  ['ease', 'to ease in'],
  ['frame', 'to frame'],
  ['again', 'to make again'],
]
const rows = computed(() => {
  const { best, planned, smallest } = props.sizes
  const same = (a: typeof best, b: typeof best) => a.width.exact === b.width.exact
  return [
    { title: same(best, planned) ? 'The best, as planned' : 'The best', size: best },
    ...(same(best, planned) ? [] : [{ title: 'As planned', size: planned }]),
    ...(same(best, smallest) || same(planned, smallest)
      ? []
      : [{ title: 'The smallest, nothing eased', size: smallest }]),
  ]
})
</script>

<template>
  <section class="sheet" :aria-label="`${name}: one size for all`">
    <h2>One size for all</h2>
    <p class="soft">{{ plural(measured, 'block') }} measured both ways.</p>
    <NTable size="small" :bordered="false">
      <tbody>
        <tr v-for="r in rows" :key="r.title">
          <th scope="row">{{ r.title }}</th>
          <td class="number"><Len :of="r.size.width" /> × <Len :of="r.size.height" /></td>
          <td>
            <template v-for="[code, said] in words" :key="code">
              <span v-if="r.size.counts[code]" class="one">{{ r.size.counts[code] }} {{ said }}</span>
            </template>
          </td>
        </tr>
      </tbody>
    </NTable>
    <p class="soft">{{ borne }}</p>
  </section>
</template>

<style scoped>
.one + .one::before {
  content: ', ';
}

section {
  overflow-x: auto;
}
</style>
