<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { NButton, NTable } from 'naive-ui'
import { computed, ref } from 'vue'

import { Refusal } from '@/shared/api/client'
import { useLibrary } from '@/features/blocks'
import UnitPicture from '@/shared/drawing/UnitPicture.vue'
import LengthInput from '@/shared/form/LengthInput.vue'
import LabelledSelect from '@/shared/form/LabelledSelect.vue'
import WaitingFor from '@/shared/ui/WaitingFor.vue'
import { kindWords, plural, schoolWords } from '@/shared/words/words'

import { type Foretelling, useForecast, useForecasts } from './api'

/** Every arrangement of the library by one's own hands, the surest first, and what would help most with one. */
const typed = ref('')
const finished = refDebounced(typed, 400)
const school = ref<Foretelling['school']>('little')
const asked = computed(() => ({ finished: finished.value.trim(), school: school.value }))
const { data, error } = useForecasts(asked)
const schools = computed(() =>
  (['exact', 'little', 'generous', 'records'] as const).map((value) => ({
    value,
    label: schoolWords[value]?.name ?? value,
  })),
)
const problem = computed(() =>
  error.value instanceof Refusal ? error.value.problem.errors[0]?.message : undefined,
)
const { data: library } = useLibrary()
const kind = ref('')
const open = ref('')
const { data: found } = useForecast(open, asked)
const arrangements = computed(() => new Map((library.value ?? []).map((b) => [b.key, b])))
const kinds = computed(() => [...new Set((library.value ?? []).flatMap((b) => b.kinds))])
const holding = computed(() => [
  { value: '', label: 'any unit' },
  ...kinds.value.map((k) => ({ value: k, label: kindWords[k]?.many ?? k })),
])
/** Blocks that the cloth on the shelf should be enough for; nothing asked, nothing left out. */
const atHand = ref('')
const shown = computed(() =>
  (data.value?.blocks ?? []).filter(
    (b) =>
      (!kind.value || arrangements.value.get(b.key)?.kinds.includes(kind.value)) &&
      b.enough >= (Number(atHand.value) || 0),
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
        An error is as large in a small block as in a large one: for tips and sides its size changes nothing,
        for the room to trim its units’ method and oversize do.
      </p>
      <div class="with">
        <LengthInput
          v-model="typed"
          label="Block finishes"
          :placeholder="data.finished.text"
          :problem="problem"
        />
        <LabelledSelect v-model="school" label="Cut" :options="schools" />
        <LabelledSelect v-model="kind" label="Holding" :options="holding" />
        <LengthInput
          v-model="atHand"
          numeric
          label="Cloth on the shelf for"
          hint="so many blocks, by area"
          :problem="/^\d*$/.test(atHand.trim()) ? '' : 'A whole number is needed here, such as 12.'"
        />
      </div>
      <p v-if="data.left" role="status">
        {{ plural(data.left, 'arrangement') }} more {{ data.left === 1 ? 'is' : 'are' }} being worked out.
      </p>
      <NTable size="small" :bordered="false">
        <thead>
          <tr>
            <th scope="col"><span class="visually-hidden">Picture</span></th>
            <th scope="col">Arrangement</th>
            <th scope="col">Tips that are right</th>
            <th scope="col">Blocks that are right</th>
            <th scope="col">Units with room</th>
            <th scope="col">Block comes out</th>
            <th scope="col">The shelf gives</th>
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
              <td>
                {{
                  b.room === null
                    ? b.cannot
                      ? 'some cannot be made at this size'
                      : 'none to trim'
                    : `${b.room} of 100`
                }}
              </td>
              <td>{{ b.off }}</td>
              <td>{{ b.enough ? `about ${plural(b.enough, 'block')}` : 'none' }}</td>
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
              <td colspan="8">
                <p v-if="!found.helps.length">For tips and sides nothing would make much of a difference.</p>
                <ul v-else>
                  <li v-for="h in found.helps" :key="h.said">
                    <strong>{{ h.said }}</strong> Then {{ tips(h.tips) }}, {{ h.blocks }} of 100 blocks.
                  </li>
                </ul>
                <ul>
                  <li v-for="u in found.units" :key="u.said">
                    <strong>{{ u.count }} {{ u.said }}</strong
                    >, {{ u.usual.said }}: {{ u.usual.room }} of 100 with room, {{ u.usual.cloth }} of cloth
                    each.
                    <template v-for="o in u.others" :key="o.said"
                      >{{ o.said }}: {{ o.room }} of 100, {{ o.cloth }}.
                    </template>
                  </li>
                </ul>
              </td>
            </tr>
          </template>
          <tr v-if="!shown.length">
            <td colspan="8">Nothing in the library is like that. Ask for fewer blocks, or another unit.</td>
          </tr>
        </tbody>
      </NTable>
    </section>
  </main>
</template>

<style scoped>
.with {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 200px), 1fr));
  gap: 10px 14px;
  align-items: start;
  margin: 12px 0;
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
