<script setup lang="ts">
import { NTable } from 'naive-ui'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'

import WaitingFor from '@/shared/ui/WaitingFor.vue'

import { useKeptDiagnoses } from './api'
import { dayWords } from '@/shared/words/days'

/** How often diagnoses that were kept turned out right, at each sureness they were said with. */
const { data, error } = useKeptDiagnoses()
const outcomes = { '': 'not known yet', right: 'right', partly: 'partly right', wrong: 'wrong' }
const known = computed(() => data.value?.calibrations.filter((c) => c.right + c.partly + c.wrong) ?? [])
const inTen = (share: number) => Math.round(share * 10)
</script>

<template>
  <main id="main" class="kept">
    <h2 class="visually-hidden">Diagnoses kept</h2>
    <WaitingFor v-if="!data && !error" what="diagnoses" />
    <p v-else-if="!data" class="sheet" role="alert">{{ error?.message }}</p>
    <template v-else>
      <section class="sheet" aria-label="How they turned out">
        <h2>How they turned out</h2>
        <p v-if="!known.length" class="soft">
          Nothing is known yet. Keep a diagnosis under Diagnose, and say there later how it turned out.
        </p>
        <NTable v-else size="small" :bordered="false">
          <thead>
            <tr>
              <th scope="col">Said to be</th>
              <th scope="col">Right</th>
              <th scope="col">Partly</th>
              <th scope="col">Wrong</th>
              <th scope="col">Not known yet</th>
              <th scope="col">On the whole</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="c in data.calibrations" :key="c.sure">
              <th scope="row">{{ c.sure }}</th>
              <td>{{ c.right }}</td>
              <td>{{ c.partly }}</td>
              <td>{{ c.wrong }}</td>
              <td>{{ c.waiting }}</td>
              <td>
                <template v-if="c.share !== null"
                  >right {{ inTen(c.share) }} times in ten; with so few it may be {{ inTen(c.low) }} to
                  {{ inTen(c.high) }}</template
                >
              </td>
            </tr>
          </tbody>
        </NTable>
        <p class="soft">{{ data.promise }}</p>
      </section>
      <section v-if="data.kept.length" class="sheet" aria-label="Kept">
        <h2>Kept</h2>
        <ul>
          <li v-for="k in data.kept" :key="k.id">
            <RouterLink
              :to="
                k.subject === 'blocks'
                  ? { name: 'diagnose-block', params: { project: k.project, block: k.of } }
                  : { name: 'diagnose', params: { project: k.project, unit: k.of } }
              "
              >{{ k.headline }}</RouterLink
            >
            <span class="soft">
              {{ k.project_name }}, {{ dayWords(k.saved_at) }}: {{ outcomes[k.turned_out || '']
              }}{{ k.later ? `, ${k.later}` : '' }}
            </span>
          </li>
        </ul>
      </section>
    </template>
  </main>
</template>

<style scoped>
.kept {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}

ul {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}

li a {
  justify-self: start;
}

li a::first-letter {
  text-transform: uppercase;
}

li {
  display: grid;
  gap: 2px;
  padding: 8px 0;
  border-top: 1px solid var(--steel-mid);
}
</style>
