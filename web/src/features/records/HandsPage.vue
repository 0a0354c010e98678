<script setup lang="ts">
import { NButton } from 'naive-ui'
import { RouterLink } from 'vue-router'

import { useOutbox } from '@/shared/offline/outbox'
import WaitingFor from '@/shared/ui/WaitingFor.vue'

import { useHands } from './api'
import HabitSheet from './HabitSheet.vue'
import { dayWords } from '@/shared/words/days'

/** What her readings say of her hands; plans, diagnoses and forecasts rest on the same figures. */
const { data, error } = useHands()
const { send } = useOutbox()
</script>

<template>
  <main id="main" class="hands">
    <h2 class="visually-hidden">Hands</h2>
    <WaitingFor v-if="!data && !error" what="your hands" />
    <p v-else-if="!data" class="sheet" role="alert">{{ error?.message }}</p>
    <section v-else-if="!data.habits.length" class="sheet">
      <h2>Nothing is known of your hands yet</h2>
      <p>
        Four seams measured on the back, or four strip tests, are enough to begin with.
        <RouterLink :to="{ name: 'records' }">Sew a strip test</RouterLink>, or measure units of a project:
        what is read there is counted here.
      </p>
    </section>
    <template v-else>
      <p class="on-mat">
        Old readings count less than new ones. Own sizes in Plan, and every diagnosis, rest on these figures.
      </p>
      <section v-if="data.days_out.length" class="sheet" aria-label="Days left out">
        <h2>Days left out</h2>
        <ul>
          <li v-for="d in data.days_out" :key="d">
            {{ dayWords(d) }}
            <NButton
              text
              :aria-label="`Take ${dayWords(d)} back`"
              @click="send({ kind: 'take_day_back', day: d })"
              >Take it back</NButton
            >
          </li>
        </ul>
      </section>
      <HabitSheet v-for="h in data.habits" :key="h.habit" :habit="h" :hands="data" />
    </template>
  </main>
</template>

<style scoped>
.hands {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}

.on-mat {
  color: var(--chalk);
}

ul {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 28px;
  margin: 6px 0 0;
  padding: 0;
}

li {
  display: flex;
  gap: 12px;
}
</style>
