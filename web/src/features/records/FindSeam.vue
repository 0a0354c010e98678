<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed, ref, watch } from 'vue'

import { type LengthOut, Refusal, type Schemas } from '@/shared/api/client'
import LengthInput from '@/shared/form/LengthInput.vue'
import { useOutbox } from '@/shared/offline/outbox'
import { useForm } from '@/shared/offline/typed'

import type { SetUp } from './api'

/** Three strips, two readings; from two or three such tests to the mark at which the guide should stand. */
const props = defineProps<{ setUp: SetUp; search: Schemas['SeamSearch'] | null; strip: LengthOut }>()
const { tried, send } = useOutbox()
const { typed, clear } = useForm(
  `find seam ${props.setUp.id}`,
  () => ({
    middle: '',
    whole: '',
    wanted: props.strip.text,
    guide: props.setUp.guide?.text ?? '',
  }),
  'wanted',
  'guide',
)
const problems = ref<Record<string, string>>({})
const field = ref<HTMLElement>()
watch(
  () => props.setUp.guide?.text ?? '',
  (now) => (typed.guide = now),
)
const move = computed(() => (props.search?.stand === 'move' ? props.search.setting : null))

/** Cleared at once, so that the next can be typed; what was refused comes back into its fields. */
async function take() {
  problems.value = {}
  const { middle, whole, wanted, guide } = typed
  clear()
  field.value?.querySelector('input')?.focus()
  try {
    await tried({
      kind: 'put_test',
      set_up: props.setUp.id,
      test: crypto.randomUUID(),
      changes: { kind: 'strip_test', value: middle, whole, wanted, guide },
      seen: {},
    })
  } catch (error) {
    if (!(error instanceof Refusal)) return
    typed.middle ||= middle
    typed.whole ||= whole
    problems.value = Object.fromEntries(error.problem.errors.map((e) => [e.field || 'value', e.message]))
  }
}

const moveGuide = () =>
  move.value &&
  send({
    kind: 'put_set_up',
    set_up: props.setUp.id,
    changes: { guide: move.value.text },
    seen: { guide: props.setUp.guide?.text ?? '' },
  })
</script>

<template>
  <section class="sheet" aria-label="Find your seam">
    <h2>Find your seam</h2>
    <p v-if="search" class="said" role="status">{{ search.said }}</p>
    <NButton v-if="move" type="primary" @click="moveGuide">The guide stands at {{ move.pretty }} now</NButton>
    <ol class="soft">
      <li>Cut three strips {{ strip.pretty }} wide and as long as your hand.</li>
      <li>Sew them side by side with the guide where it stands, as you always sew.</li>
      <li>Press as you always press, and lay it flat.</li>
      <li>Read the middle strip, seam to seam, and then all three from edge to edge.</li>
    </ol>
    <form ref="field" @submit.prevent="take">
      <LengthInput v-model="typed.middle" label="Middle strip" :problem="problems.value" @enter="take" />
      <LengthInput v-model="typed.whole" label="All three" :problem="problems.whole" @enter="take" />
      <LengthInput v-model="typed.guide" label="Guide stood at" :problem="problems.guide" @enter="take" />
      <LengthInput v-model="typed.wanted" label="Strips were cut" :problem="problems.wanted" @enter="take" />
      <NButton type="primary" attr-type="submit">Take it down</NButton>
    </form>
  </section>
</template>

<style scoped>
.said {
  font-size: 20px;
  font-weight: 600;
  margin: 8px 0 10px;
}

ol {
  margin: 12px 0;
  padding-left: 22px;
}

form {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px 14px;
}
</style>
