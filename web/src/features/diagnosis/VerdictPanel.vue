<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed } from 'vue'

import type { Asked, Diagnosis } from './api'

/** What an expert would say: cause, how much, how sure, one sentence of evidence, what to do first; and the next reading. */
const props = defineProps<{ found: Diagnosis; byHand?: boolean }>()
const emit = defineEmits<{ ask: [Asked] }>()
const v = computed(() => props.found.verdict)
const upper = (s: string) => s.charAt(0).toUpperCase() + s.slice(1)
/** What the eye found besides, where it is not the headline itself. */
const besides = computed(() => props.found.seen.filter((s) => s.noticed && s.code !== v.value.code))
const next = computed(() => props.found.next[0])
const needed = computed(() => next.value?.needed && v.value.status !== 'mistake')
</script>

<template>
  <section class="sheet verdict" aria-label="Verdict">
    <p class="says" :class="v.status">
      <span v-if="v.status !== 'no_readings'" class="sure">{{ upper(v.sure_words) }}</span>
      <strong>{{ upper(v.said) }}.</strong>
    </p>
    <p v-if="v.status !== 'no_readings'">{{ upper(v.why) }}</p>
    <p v-if="v.beside_said">Beside it: {{ v.beside_said }}.</p>
    <p v-if="found.first" class="first"><b>First:</b> {{ found.first }}.</p>
    <p v-for="s in besides" :key="s.code" class="one">
      <strong>{{ s.said }}.</strong> {{ s.why }}
    </p>
    <p v-for="o in found.odd" :key="o" class="serious">Set aside: {{ o }}</p>
    <p v-for="o in found.lone" :key="o" class="serious">{{ o }}</p>
    <template v-if="next">
      <div v-if="needed || v.status === 'no_readings'" class="next">
        <h3>The next reading</h3>
        <p>{{ next.said }}</p>
        <ul v-if="next.outcomes.length > 1 && !byHand">
          <li v-for="o in next.outcomes" :key="o.said">{{ upper(o.said) }}</li>
        </ul>
        <NButton size="small" @click="emit('ask', next)">Take this one</NButton>
      </div>
      <p v-else-if="v.status !== 'mistake'" class="soft">No further reading would change what to do.</p>
    </template>
  </section>
</template>

<style scoped>
.verdict {
  display: grid;
  gap: 7px;
  align-content: start;
}

.says {
  font-size: 20px;
  line-height: 1.25;
}

.sure {
  display: inline-block;
  font-size: 16px;
  padding: 0 10px;
  margin-right: 8px;
  border: 2px solid var(--ink);
  border-radius: 2px;
}

.first,
.one {
  background: #fdf1d2;
  box-shadow: inset 5px 0 0 var(--oilskin);
  padding: 5px 12px;
}

.next {
  border-top: 2px dashed var(--steel-line);
  padding-top: 7px;
  display: grid;
  gap: 6px;
  justify-items: start;
}

ul {
  margin: 0;
  padding-left: 20px;
  line-height: 1.25;
}
</style>
