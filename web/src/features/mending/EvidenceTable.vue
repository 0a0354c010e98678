<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import { causeWords, readingWords } from '@/shared/lib/words'

defineProps<{ evidence: Schemas['Evidence'][] }>()
const causes = ['seam', 'fold', 'trim', 'cut'] as const
const alone = (e: Schemas['Evidence'], cause: string) => e.alone.find((a) => a.cause === cause)?.reads.pretty
const what = (e: Schemas['Evidence']) =>
  e.kind === 'row_length' ? `Row of ${e.row_units}` : (readingWords[e.kind]?.name ?? e.kind)
</script>

<template>
  <section class="sheet" aria-label="The readings it rests on">
    <h3>The readings it rests on</h3>
    <p class="soft">
      Each reading, what it should be, and what each cause alone, at its estimate, would make of it.
    </p>
    <div class="scroll" tabindex="0" role="region" aria-label="Readings and predictions">
      <table>
        <thead>
          <tr>
            <th scope="col">Reading</th>
            <th scope="col">Reads</th>
            <th scope="col">Should</th>
            <th v-for="c in causes" :key="c" scope="col">{{ causeWords[c]?.name }} alone</th>
            <th scope="col">All together</th>
            <th scope="col">Left over</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(e, i) in evidence" :key="i">
            <th scope="row">{{ what(e) }}</th>
            <td class="number">{{ e.value.pretty }}</td>
            <td>{{ e.nominal.pretty }}</td>
            <td v-for="c in causes" :key="c">{{ alone(e, c) ?? '·' }}</td>
            <td>{{ e.together.pretty }}</td>
            <td :class="{ serious: e.apart }">
              {{ e.left_over.pretty }}<template v-if="e.apart"> — stands apart, read it again</template>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  text-align: left;
  padding: 4px 14px 4px 0;
  font-weight: 400;
  white-space: nowrap;
}

thead th {
  font-weight: 550;
  font-stretch: 88%;
  white-space: normal;
  border-bottom: 2px dashed var(--steel-line);
}

tbody tr + tr > * {
  border-top: 1px solid var(--steel-mid);
}
</style>
