<script setup lang="ts">
import { NCollapse, NCollapseItem } from 'naive-ui'
import { computed } from 'vue'

import RowInput from '@/shared/form/RowInput.vue'
import { usePreference } from '@/shared/offline/preference'

import { type Project, Refusal, ServerAway } from '@/shared/api/client'
import { lastOf } from '@/shared/api/lastOf'
import { kindWords, methodWords, schoolWords } from '@/shared/words/words'
import Len from '@/shared/words/Len.vue'

import { useBuying, usePossible } from './api'

/** What the shop is asked for when nothing is in stock, and the thread the blocks take. */
const props = defineProps<{ project: Project }>()
const typed = usePreference('allowances', { shrinkage: '3', wrong_cuts: '1', bobbin: '65' })
/** As typed, so that the server refuses what is none; a blank takes the usual one. */
const allowancesAsked = () => {
  const number = (text: string) => (text.trim() ? Number(text) : undefined)
  const { shrinkage, wrong_cuts, bobbin } = typed.value
  return { shrinkage: number(shrinkage), wrong_cuts: number(wrong_cuts), bobbin: number(bobbin) }
}
const { data, error } = useBuying(() => props.project.id, allowancesAsked)
const problems = computed<Record<string, string>>(() =>
  error.value instanceof Refusal
    ? Object.fromEntries(error.value.problem.errors.map((e) => [e.field, e.message]))
    : {},
)
const found = lastOf(data)
const allowances = computed(() => [
  { of: 'shrinkage' as const, said: 'Shrinkage, in a hundred' },
  { of: 'wrong_cuts' as const, said: 'Strips cut wrong' },
  { of: 'bobbin' as const, said: `${props.project.measure === 'mm' ? 'Metres' : 'Yards'} on a bobbin` },
])
const { data: possible } = usePossible(() => props.project.id)
const one: Record<string, string> = { fat_quarter: 'fat quarter', square: 'square', strip: 'strip' }
const many: Record<string, string> = { fat_quarter: 'fat quarters', square: 'squares', strip: 'strips' }
const name = (role: string) => props.project.fabrics.find((f) => f.role === role)?.name ?? role.toUpperCase()
</script>

<template>
  <section v-if="possible?.blocks.length" class="sheet" aria-label="What the stock gives">
    <h2>What the stock gives</h2>
    <p v-for="b in possible.blocks" :key="b.name">{{ b.said }}</p>
    <p v-for="w in possible.ways" :key="w.kind + w.method + w.school">
      {{ kindWords[w.kind]?.name }} by
      <strong>{{ methodWords(w.kind, w.method).name }}, {{ schoolWords[w.school]?.name }}</strong> would make
      everything fit.
    </p>
  </section>
  <section class="sheet" aria-label="To buy">
    <h2>To buy, with none in stock</h2>
    <div class="allow">
      <div v-for="a in allowances" :key="a.of">
        {{ a.said }}
        <RowInput v-model="typed[a.of]" :labelled="a.said" :wrong="!!problems[a.of]" numeric />
        <p v-if="problems[a.of]" class="serious" role="alert">{{ problems[a.of] }}</p>
      </div>
    </div>
    <p v-if="error instanceof ServerAway">
      Only the server can work it out. It is away{{ found ? '; these are the last figures' : '' }}.
    </p>
    <p v-else-if="!found">Working it out…</p>
    <template v-if="found">
      <p v-if="found.refusal" class="serious" role="alert">{{ found.refusal }}</p>
      <ul>
        <li v-for="p in found.purchases" :key="p.fabric">
          <strong>{{ name(p.fabric) }}: {{ p.asked }}</strong>
          <span class="soft">
            cut from <Len :of="p.bare" about /><template v-for="k in p.instead" :key="k.kind + k.along.text"
              >; or {{ k.count }} {{ k.count === 1 ? one[k.kind] : many[k.kind]
              }}<template v-if="k.kind !== 'fat_quarter'"> of <Len :of="k.along" about /></template
            ></template>
          </span>
        </li>
        <li v-if="found.backing">
          <strong>Backing, {{ name(found.backing_fabric) }}: {{ found.backing.asked }}</strong>
          <span class="soft">{{ found.backing.said }}</span>
        </li>
        <li v-if="found.backing">
          <strong
            >Batting: <Len :of="found.backing.width" about /> by <Len :of="found.backing.height" about
          /></strong>
          <span class="soft">as large as the backing</span>
        </li>
      </ul>
      <p v-if="found.better_coming" class="soft">Whether less would do is still looked for.</p>
      <p v-if="found.bobbins">
        Thread: {{ found.seam_said }} of seam takes {{ found.thread_said }}; wind {{ found.bobbins }} bobbins.
      </p>
      <NCollapse v-if="found.seams.length">
        <NCollapseItem title="Seam by seam" name="seams">
          <ul>
            <li v-for="s in found.seams" :key="s.said">{{ s.said }}: {{ s.told }}</li>
          </ul>
        </NCollapseItem>
      </NCollapse>
    </template>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 6px 0;
  padding: 0;
  display: grid;
  gap: 6px;
  line-height: 1.3;
}

.allow {
  display: grid;
  gap: 6px;
  margin: 6px 0 10px;
}

.allow > div {
  display: grid;
  grid-template-columns: 1fr 70px;
  align-items: center;
}

.allow p {
  grid-column: 1 / -1;
}

.soft {
  display: block;
}
</style>
