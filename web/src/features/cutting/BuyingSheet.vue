<script setup lang="ts">
import { NCollapse, NCollapseItem } from 'naive-ui'

import RowInput from '@/shared/form/RowInput.vue'
import { usePreference } from '@/shared/offline/preference'

import { type Project, ServerAway } from '@/shared/api/client'
import { kindWords, methodWords, schoolWords } from '@/shared/words/words'
import Len from '@/shared/words/Len.vue'

import { useBuying, usePossible } from './api'

/** What the shop is asked for when nothing is in stock, and the thread the blocks take. */
const props = defineProps<{ project: Project }>()
const typed = usePreference('allowances', { shrinkage: '3', wrong_cuts: '1', bobbin: '65' })
const whole = (text: string, most: number, usual: number) =>
  /^\d{1,4}$/.test(text) && +text <= most ? +text : usual
const asked = () => ({
  shrinkage: whole(typed.value.shrinkage, 30, 3),
  wrong_cuts: whole(typed.value.wrong_cuts, 20, 1),
  bobbin: whole(typed.value.bobbin, 1000, 0),
})
const { data, error } = useBuying(() => props.project.id, asked)
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
    <p v-if="!data">
      {{ error instanceof ServerAway ? 'Only the server can work it out. It is away.' : 'Working it out…' }}
    </p>
    <template v-else>
      <p v-if="data.refusal" class="serious" role="alert">{{ data.refusal }}</p>
      <ul>
        <li v-for="p in data.purchases" :key="p.fabric">
          <strong>{{ name(p.fabric) }}: {{ p.asked }}</strong>
          <span class="soft">
            cut from <Len :of="p.bare" about /><template v-for="k in p.instead" :key="k.kind + k.along.text"
              >; or {{ k.count }} {{ k.count === 1 ? one[k.kind] : many[k.kind]
              }}<template v-if="k.kind !== 'fat_quarter'"> of <Len :of="k.along" about /></template
            ></template>
          </span>
        </li>
        <li v-if="data.backing">
          <strong>Backing, {{ name(data.backing_fabric) }}: {{ data.backing.asked }}</strong>
          <span class="soft">{{ data.backing.said }}</span>
        </li>
        <li v-if="data.backing">
          <strong
            >Batting: <Len :of="data.backing.width" about /> by <Len :of="data.backing.height" about
          /></strong>
          <span class="soft">as large as the backing</span>
        </li>
      </ul>
      <p v-if="data.better_coming" class="soft">Whether less would do is still looked for.</p>
      <p v-if="data.bobbins">
        Thread: {{ data.seam_said }} of seam takes {{ data.thread_said }}; wind {{ data.bobbins }} bobbins.
      </p>
      <NCollapse v-if="data.seams.length">
        <NCollapseItem title="Seam by seam" name="seams">
          <ul>
            <li v-for="s in data.seams" :key="s.said">{{ s.said }}: {{ s.told }}</li>
          </ul>
        </NCollapseItem>
      </NCollapse>
    </template>
    <div class="allow">
      <div>
        Shrinkage, in a hundred
        <RowInput v-model="typed.shrinkage" labelled="Shrinkage, in a hundred" numeric />
      </div>
      <div>Strips cut wrong <RowInput v-model="typed.wrong_cuts" labelled="Strips cut wrong" numeric /></div>
      <div>
        {{ project.measure === 'mm' ? 'Metres' : 'Yards' }} on a bobbin
        <RowInput
          v-model="typed.bobbin"
          :labelled="`${project.measure === 'mm' ? 'Metres' : 'Yards'} on a bobbin`"
          numeric
        />
      </div>
    </div>
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
  margin: 10px 0;
}

.allow > div {
  display: grid;
  grid-template-columns: 1fr 70px;
  align-items: center;
}

.soft {
  display: block;
}
</style>
