<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'

import { Refusal } from '@/shared/api/client'
import { useOutbox } from '@/shared/offline/outbox'
import WaitingFor from '@/shared/ui/WaitingFor.vue'
import { plural } from '@/shared/words/words'

import { useEvenings } from './api'
import FreeTimes from './FreeTimes.vue'
import PlannedProject from './PlannedProject.vue'

/** What is left of the projects, laid into free evenings; what is late; the same for a calendar. */
const { data, error } = useEvenings()
const { send, tried } = useOutbox()
const names = computed(() => Object.fromEntries((data.value?.projects ?? []).map((p) => [p.project, p.name])))
const several = computed(() => (data.value?.projects.length ?? 0) > 1)
const problem = ref('')

async function keepPlan() {
  problem.value = ''
  try {
    await tried({ kind: 'keep_plan' })
  } catch (refusal) {
    if (!(refusal instanceof Refusal)) throw refusal
    problem.value = refusal.message
  }
}
const planIt = (project: string, planned: boolean) =>
  send({ kind: 'change_schedule', project, changes: { planned }, seen: {} })
</script>

<template>
  <main id="main" class="evenings">
    <h2 class="visually-hidden">Evenings</h2>
    <WaitingFor v-if="!data && !error" what="your evenings" />
    <p v-else-if="!data" class="sheet" role="alert">{{ error?.message }}</p>
    <template v-else>
      <div class="left">
        <section v-if="data.behind.length" class="sheet" aria-label="Behind the plan that was kept">
          <h2>Behind the plan you kept</h2>
          <ul>
            <li v-for="b in data.behind" :key="b">{{ b }}</li>
          </ul>
          <p class="soft">The evenings below start from what is done by now. Keep them, if they suit.</p>
        </section>
        <section class="sheet" aria-label="Planned evenings">
          <h2>Evenings</h2>
          <p v-if="!data.free.length">Say when you are usually free, and the work is laid into it.</p>
          <p v-else-if="!data.projects.length">
            Choose a project to plan: what is left of it is laid into the free times.
          </p>
          <p v-else-if="!data.sittings.length">Nothing is left to do, or no free time is left for it.</p>
          <template v-else>
            <div class="acts">
              <NButton v-if="!data.same" type="primary" @click="keepPlan">Keep this plan</NButton>
              <span v-else class="soft">This is the plan you kept.</span>
              <a v-if="data.kept" href="/api/evenings/evenings.ics" download>The kept plan for a calendar</a>
            </div>
            <p v-if="problem" class="serious" role="alert">{{ problem }}</p>
            <ol>
              <li v-for="s in data.sittings" :key="`${s.date} ${s.begins}`">
                <p class="when">
                  <strong>{{ s.day }}</strong> <span class="number">{{ s.begins }} to {{ s.ends }}</span>
                </p>
                <ul>
                  <li v-for="t in s.tasks" :key="t.said">
                    {{ t.said
                    }}<span class="soft"
                      >, {{ t.minutes }}<template v-if="several">, {{ names[t.project] }}</template></span
                    >
                  </li>
                </ul>
              </li>
            </ol>
            <p v-if="data.sittings_in_all > data.sittings.length" class="soft">
              The first {{ data.sittings.length }} of {{ plural(data.sittings_in_all, 'evening') }}.
            </p>
            <p v-if="data.left">The free time that is known does not reach for everything.</p>
            <p class="soft">{{ data.rests }}</p>
          </template>
        </section>
      </div>
      <div class="right">
        <PlannedProject
          v-for="p in data.projects"
          :key="p.project"
          :time="p"
          @leave="planIt(p.project, false)"
        />
        <section v-if="data.others.length" class="sheet" aria-label="Not planned">
          <h2>Not planned</h2>
          <ul class="others">
            <li v-for="o in data.others" :key="o.id">
              <span>{{ o.name }}</span>
              <NButton size="small" :aria-label="`Plan ${o.name}`" @click="planIt(o.id, true)"
                >Plan it</NButton
              >
            </li>
          </ul>
        </section>
        <FreeTimes :evenings="data" />
      </div>
    </template>
  </main>
</template>

<style scoped>
.evenings {
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}

.left,
.right {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}

ol {
  list-style: none;
  margin: 12px 0;
  padding: 0;
}

ol > li {
  padding: 8px 0;
  border-top: 1px solid var(--steel-mid);
}

.when {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 16px;
}

ul {
  margin: 2px 0 0;
  padding-left: 20px;
}

.others {
  list-style: none;
  padding: 0;
}

.others li,
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
  justify-content: space-between;
  padding: 4px 0;
}

@media (width <= 900px) {
  .evenings {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
