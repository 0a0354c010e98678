<script setup lang="ts">
import { NButton } from 'naive-ui'
import { usePreference } from '@/shared/offline/preference'
import { computed, ref, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'

import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'
import { readingWords } from '@/shared/words/words'

import { type Symptom, useSymptoms } from './api'
import ByHand from './ByHand.vue'

/** From "my points are cut off" to the readings that tell why: two or three pictures, then the ruler. */
const { data } = useSymptoms()
const route = useRoute()
const router = useRouter()
const path = computed(() =>
  String(route.query.see ?? '')
    .split('.')
    .filter(Boolean),
)
const under = computed(() => path.value.at(-1) ?? '')
const at = computed(() => data.value?.find((s) => s.code === under.value))
const choices = computed(() => data.value?.filter((s) => s.under === under.value) ?? [])
const end = computed(() => (at.value && !choices.value.length ? at.value : null))
/** Straight to sizes and readings typed by hand; no symptom's code has a hyphen. */
const hand = computed(() => under.value === 'by-hand')
const showTrue = ref(false)
const lastSeen = usePreference<string>('seen', '')
watch(end, (e) => e && (lastSeen.value = path.value.join('.')), { immediate: true })
const see = (s: Symptom) => router.push({ query: { see: [...path.value, s.code].join('.') } })
const back = () =>
  router.push({ query: path.value.length > 1 ? { see: path.value.slice(0, -1).join('.') } : {} })
const colours = { a: '#d8392b', b: '#cfd8dc', c: '#20262e', d: '#2f6f7e' }
</script>

<template>
  <main id="main" class="wrong">
    <h1>{{ end ? end.said : at ? at.question : hand ? 'By hand' : 'What do you see?' }}</h1>
    <p v-if="path.length">
      <NButton text class="quiet chalk" @click="back">Back to the question before</NButton>
    </p>
    <p v-if="!data && !hand" class="chalk">Drawing the pictures…</p>
    <div v-if="choices.length" class="choices">
      <button v-for="s in choices" :key="s.code" type="button" class="sheet choice" @click="see(s)">
        <CoreDrawing :drawing="{ ...s.picture, alt: '' }" :colours="colours" :width="200" />
        <strong>{{ s.said }}</strong>
      </button>
    </div>
    <ByHand v-if="hand" :measure="['width', 'stitch', 'row']" />
    <p v-if="!path.length" class="chalk">
      <RouterLink :to="{ query: { see: 'by-hand' } }">Type sizes and readings at once</RouterLink>
      <template v-if="lastSeen"
        >, or
        <RouterLink :to="{ query: { see: lastSeen } }">go back to what was seen last</RouterLink></template
      >.
    </p>
    <div v-if="end" class="end">
      <section class="sheet" aria-label="What to measure">
        <p>{{ end.because }}</p>
        <template v-if="end.measure.length">
          <h2>Measure these</h2>
          <ul>
            <li v-for="m in end.measure" :key="m">
              <strong>{{ readingWords[m]?.name }}</strong>: {{ readingWords[m]?.where }}
            </li>
          </ul>
          <p class="soft">
            In a project: choose Measure, pick the block or the unit, and take them down there. Or type them
            here.
          </p>
        </template>
      </section>
      <section class="sheet looks" aria-label="How it looks">
        <CoreDrawing :drawing="showTrue ? end.true_picture : end.picture" :colours="colours" :width="300" />
        <NButton text class="quiet" @click="showTrue = !showTrue">
          {{ showTrue ? 'Show how it looks now' : 'This is how it should look' }}
        </NButton>
      </section>
      <ByHand v-if="end.measure.length" :measure="end.measure" />
    </div>
  </main>
</template>

<style scoped>
.wrong {
  max-width: 1180px;
  margin: 0 auto;
  padding: 18px 24px 40px;
  display: grid;
  gap: 14px;
}

h1,
.chalk,
.chalk a {
  color: var(--chalk);
}

.choices {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 14px;
}

.choice {
  font: inherit;
  color: var(--ink);
  text-align: left;
  border: 0;
  cursor: pointer;
  display: grid;
  gap: 10px;
  justify-items: center;
  align-content: space-between;
}

.choice strong {
  justify-self: stretch;
  line-height: 1.25;
}

.choice :deep(.drawing) {
  max-height: 190px;
  width: auto;
}

.choice:hover {
  outline: 3px solid var(--oilskin);
}

.end {
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}

.looks {
  display: grid;
  justify-items: center;
  gap: 8px;
}

.looks :deep(.drawing) {
  max-height: 320px;
  width: auto;
}

@media (width <= 820px) {
  .end {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
