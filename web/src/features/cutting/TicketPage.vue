<script setup lang="ts">
import type { Project, Schemas } from '@/shared/api/client'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'
import UnitPicture from '@/shared/drawing/UnitPicture.vue'
import Len from '@/shared/words/Len.vue'

import { useTicket } from './api'

/** The bench ticket: enough to sew from without another screen, the same as on paper. */
const props = defineProps<{ project: Project; colours: Record<string, string> }>()
const { data } = useTicket(() => props.project.id)
const head = (s: Schemas['TicketStep']) => `${s.title}${s.times > 1 ? `, ${s.times} times` : ''}`
</script>

<template>
  <main id="main" class="tickets">
    <h2 class="visually-hidden">Bench ticket</h2>
    <p v-if="data && !data.units.length" class="sheet">No unit is planned in this project.</p>
    <section v-for="(t, i) in data?.units ?? []" :key="i" class="sheet" :aria-label="t.name">
      <div class="head">
        <div>
          <h3>{{ t.name }}</h3>
          <p>{{ t.wanted }}</p>
          <p v-if="t.done">{{ t.done }}</p>
          <p class="target">
            {{ t.trim.length ? 'Trim' : 'Cut' }} to <Len :of="t.target" about /><template
              v-if="t.target.exact !== t.target_height.exact"
            >
              × <Len :of="t.target_height" about
            /></template>
          </p>
        </div>
        <UnitPicture :drawing="{ ...t.picture, alt: '' }" :colours="colours" :size="96" />
      </div>
      <h4>Cut</h4>
      <ol>
        <li v-for="s in t.cut" :key="s">{{ s }}</li>
      </ol>
      <template v-if="t.steps.length">
        <h4>Sew and press</h4>
        <p v-for="s in t.pairs" :key="s">{{ s }}</p>
        <ol class="steps">
          <li v-for="(s, n) in t.steps" :key="n">
            <CoreDrawing :drawing="{ ...s.front, alt: '' }" :colours="colours" :width="96" />
            <div>
              <strong>{{ n + 1 }}. {{ head(s) }}</strong>
              {{ [...s.said, ...s.look].join(' ') }}
            </div>
          </li>
        </ol>
        <p>
          <strong>{{ t.per_go > 1 ? `${t.goes} sets of ${t.per_go}` : `${t.goes} to make` }}.</strong>
          <span v-for="l in t.lots" :key="l.number">
            Lot {{ l.number }}: {{ l.goes }}{{ t.wound.includes(l.number) ? ', wind a bobbin first' : '' }}.
          </span>
        </p>
      </template>
      <h4 v-if="t.trim.length">Trim: {{ t.trim_by }}</h4>
      <ol v-if="t.trim.length" class="steps">
        <li v-for="(s, n) in t.trim" :key="n">
          <CoreDrawing :drawing="{ ...s.drawing, alt: '' }" :colours="colours" :width="96" />
          <div>
            <strong>{{ n + 1 }}. {{ s.title }}</strong> {{ s.how }}
          </div>
        </li>
      </ol>
      <p v-if="t.tips.length" class="soft">Then it shows: {{ t.tips.join('; ') }}.</p>
      <p v-for="c in t.cautions" :key="c" class="soft">{{ c }}</p>
    </section>
    <section v-for="(b, i) in data?.blocks ?? []" :key="`b${i}`" class="sheet" :aria-label="b.name">
      <div class="head">
        <div>
          <h3>{{ b.name }}</h3>
          <p>{{ b.wanted }}</p>
        </div>
        <UnitPicture :drawing="{ ...b.picture, alt: '' }" :colours="colours" :size="96" />
      </div>
      <h4>Join</h4>
      <ol class="steps">
        <li v-for="(s, n) in b.steps" :key="n">
          <CoreDrawing :drawing="{ ...s.front, alt: '' }" :colours="colours" :width="96" />
          <div>
            <strong>{{ n + 1 }}. {{ s.stage === 'press' ? 'Press: ' : '' }}{{ head(s) }}</strong>
            {{ [...s.said, ...s.look].join(' ') }}
          </div>
        </li>
      </ol>
      <p v-for="c in b.cautions" :key="c" class="soft">{{ c }}</p>
    </section>
    <section v-if="data?.quilt" class="sheet" aria-label="The quilt">
      <div class="head">
        <div>
          <h3>The quilt</h3>
          <p>{{ data.quilt.wanted }}</p>
        </div>
        <UnitPicture :drawing="{ ...data.quilt.picture, alt: '' }" :colours="colours" :size="96" />
      </div>
      <h4>Join</h4>
      <ol class="steps">
        <li v-for="(s, n) in data.quilt.steps" :key="n">
          <div>
            <strong>{{ n + 1 }}. {{ s.title }}</strong> {{ [...s.said, ...s.look].join(' ') }}
          </div>
        </li>
      </ol>
      <p v-for="c in data.quilt.cautions" :key="c" class="soft">{{ c }}</p>
    </section>
  </main>
</template>

<style scoped>
.tickets {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 520px), 1fr));
  gap: 14px;
  align-items: start;
}

.head {
  display: flex;
  justify-content: space-between;
  gap: 14px;
}

h3 {
  font-size: 24px;
}

h4 {
  margin: 12px 0 2px;
  padding-top: 8px;
  border-top: 2px dashed var(--steel-line);
  font-size: 18px;
}

.target {
  font-size: 26px;
  font-weight: 600;
}

ol {
  margin: 0;
  padding-left: 24px;
  font-size: 17px;
  line-height: 1.35;
}

.steps {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 8px;
}

.steps li {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 12px;
  align-items: start;
}

.steps :deep(.drawing) {
  overflow: hidden;
}

strong {
  display: block;
}
</style>
