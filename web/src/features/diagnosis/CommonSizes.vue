<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed } from 'vue'

import type { Schemas } from '@/shared/api/client'
import Len from '@/shared/words/Len.vue'
import { plural } from '@/shared/words/words'

/** Sizes that all blocks could be brought to, side by side, with what each costs. */
const props = defineProps<{
  name: string
  sizes: Schemas['CommonSizes']
  measured: number
  borne: string
  /** Whether the rest of the quilt can be cut to go with one of them. */
  settles: boolean
}>()
defineEmits<{ settled: [size: Schemas['CommonSize']] }>()
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
    <ul>
      <li v-for="r in rows" :key="r.title">
        <p class="size">
          <strong>{{ r.title }}</strong> <Len :of="r.size.width" /> × <Len :of="r.size.height" />
        </p>
        <p>
          <template v-for="[code, said] in words" :key="code">
            <span v-if="r.size.counts[code]" class="one">{{ r.size.counts[code] }} {{ said }}</span>
          </template>
        </p>
        <NButton v-if="settles" size="small" @click="$emit('settled', r.size)">All are brought to it</NButton>
      </li>
    </ul>
    <p class="soft">{{ borne }}</p>
  </section>
</template>

<style scoped>
.one + .one::before {
  content: ', ';
}

ul {
  margin: 0 0 10px;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 2px 12px;
  align-items: center;
  padding: 8px 0;
  border-top: 1px solid var(--steel-mid);
}

li p {
  grid-column: 1;
  margin: 0;
}

li button {
  grid-row: 1 / span 2;
  grid-column: 2;
}
</style>
