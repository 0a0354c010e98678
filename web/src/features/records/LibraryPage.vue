<script setup lang="ts">
import { NButton, NTable } from 'naive-ui'
import { computed, ref } from 'vue'

import { useLibrary } from '@/features/blocks'
import UnitPicture from '@/shared/drawing/UnitPicture.vue'
import SelectInput from '@/shared/form/SelectInput.vue'
import WaitingFor from '@/shared/ui/WaitingFor.vue'
import { kindWords, plural } from '@/shared/words/words'

import { useForecast, useForecasts } from './api'

/** Every arrangement of the library by one's own hands, the surest first, and what would help most with one. */
const { data, error } = useForecasts()
const { data: library } = useLibrary()
const kind = ref('')
const open = ref('')
const { data: found } = useForecast(open)
const arrangements = computed(() => new Map((library.value ?? []).map((b) => [b.key, b])))
const kinds = computed(() => [...new Set((library.value ?? []).flatMap((b) => b.kinds))])
const holding = computed(() => [
  { value: '', label: 'any unit' },
  ...kinds.value.map((k) => ({ value: k, label: kindWords[k]?.many ?? k })),
])
const shown = computed(() =>
  (data.value?.blocks ?? []).filter(
    (b) => !kind.value || arrangements.value.get(b.key)?.kinds.includes(kind.value),
  ),
)
const cloth = { a: '#d8392b', b: '#cfd8dc', c: '#20262e', d: '#f0b429', e: '#2f6f7e', f: '#c8b48a' }
const tips = (n: number | null) => (n === null ? 'no tips' : `${n} of 100 tips`)
</script>

<template>
  <main id="main" class="library">
    <h2 class="visually-hidden">Will it come out?</h2>
    <WaitingFor v-if="!data && !error" what="the library" />
    <p v-else-if="!data" class="sheet" role="alert">{{ error?.message }}</p>
    <section v-else class="sheet" aria-label="Will it come out?">
      <p>
        Tips within {{ data.tip_borne.pretty }} of their seam, and blocks within
        {{ data.side_borne.pretty }} on every side,
        <template v-if="data.readings"
          >by your own seam of {{ plural(data.readings, 'reading')
          }}<template v-if="data.trimmed"> and {{ plural(data.trimmed, 'unit') }} trimmed</template
          >.</template
        >
        <template v-else>by steady hands: nothing is known of yours yet.</template>
        The size of a block changes nothing in it; its seams do.
      </p>
      <div class="with">
        Holding
        <SelectInput v-model="kind" class="list" labelled="Holding" :options="holding" />
      </div>
      <NTable size="small" :bordered="false">
        <thead>
          <tr>
            <th scope="col"><span class="visually-hidden">Picture</span></th>
            <th scope="col">Arrangement</th>
            <th scope="col">Tips that are right</th>
            <th scope="col">Blocks that are right</th>
            <th scope="col">Block comes out</th>
            <th scope="col"><span class="visually-hidden">What would help</span></th>
          </tr>
        </thead>
        <tbody>
          <template v-for="b in shown" :key="b.key">
            <tr>
              <td>
                <UnitPicture
                  v-if="arrangements.get(b.key)"
                  :drawing="{ ...arrangements.get(b.key)!.picture, alt: '' }"
                  :colours="cloth"
                  :size="44"
                />
              </td>
              <th scope="row">{{ b.name }}</th>
              <td>{{ tips(b.tips) }}</td>
              <td>{{ b.blocks }} of 100</td>
              <td>{{ b.off }}</td>
              <td>
                <NButton
                  text
                  :aria-label="`What would help with ${b.name}`"
                  :aria-expanded="open === b.key"
                  @click="open = open === b.key ? '' : b.key"
                  >What would help?</NButton
                >
              </td>
            </tr>
            <tr v-if="open === b.key && found?.block.key === b.key" class="helps">
              <td colspan="6">
                <p v-if="!found.helps.length">Nothing that would make much of a difference.</p>
                <ul v-else>
                  <li v-for="h in found.helps" :key="h.said">
                    <strong>{{ h.said }}</strong> Then {{ tips(h.tips) }}, {{ h.blocks }} of 100 blocks.
                  </li>
                </ul>
              </td>
            </tr>
          </template>
        </tbody>
      </NTable>
    </section>
  </main>
</template>

<style scoped>
.with {
  display: flex;
  gap: 10px;
  align-items: center;
  margin: 12px 0;
}

.list {
  width: 280px;
}

section {
  overflow-x: auto;
}

th[scope='row'] {
  font-weight: 600;
  text-align: left;
}

ul {
  margin: 0;
  padding-left: 20px;
}
</style>
