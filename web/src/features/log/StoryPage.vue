<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'

import type { Project } from '@/shared/api/client'
import CoreDrawing from '@/shared/drawing/CoreDrawing.vue'
import { coloursOf } from '@/shared/lib/colours'
import WaitingFor from '@/shared/ui/WaitingFor.vue'

import { useStory } from './api'
import EntryForm from './EntryForm.vue'
import LogCard from './LogCard.vue'
import { dayWords } from '@/shared/words/days'

/** A project as a whole, to print or keep: facts, pictures, what was put down on the way, what was learned. */
const props = defineProps<{ project: Project }>()
const { data, error } = useStory(() => props.project.id)
const colours = computed(() => coloursOf(props.project.fabrics))
const open = ref<'' | 'note' | 'learned'>('')
const today = new Date().toLocaleDateString('sv')
const learned = computed(() => data.value?.rows.filter((r) => r.kind === 'learned') ?? [])
const others = computed(() => data.value?.rows.filter((r) => r.kind !== 'learned') ?? [])
</script>

<template>
  <main id="main" class="story">
    <WaitingFor v-if="!data && !error" what="this project" />
    <p v-else-if="!data" class="sheet" role="alert">{{ error?.message }}</p>
    <template v-else>
      <section class="sheet" aria-label="Facts">
        <h2>{{ data.name }}</h2>
        <p class="soft">
          Begun {{ dayWords(data.begun)
          }}<template v-if="data.ended">, put away {{ dayWords(data.ended) }}</template>
        </p>
        <p class="acts">
          <a :href="`/api/projects/${project.id}/story.pdf`" target="_blank">To print or keep, as PDF</a>
        </p>
        <div class="pictures">
          <CoreDrawing v-if="data.quilt" :drawing="data.quilt" :colours="colours" :width="300" />
          <figure v-for="b in data.blocks" :key="b.said">
            <CoreDrawing :drawing="b.picture" :colours="colours" :width="170" />
            <figcaption>{{ b.said }}</figcaption>
          </figure>
        </div>
        <dl>
          <template v-for="f in data.facts" :key="f.heading">
            <dt>{{ f.heading }}</dt>
            <dd>
              <span v-for="l in f.lines" :key="l">{{ l }}</span>
            </dd>
          </template>
        </dl>
      </section>
      <section class="sheet" aria-label="What was learned">
        <h2>What was learned</h2>
        <LogCard v-for="r in learned" :key="r.id" :row="r" :today="today" />
        <p v-if="!learned.length" class="soft">
          Nothing is put down yet: what would you do otherwise next time?
        </p>
        <NButton v-if="open !== 'learned'" size="small" @click="open = 'learned'"
          >Put down what was learned</NButton
        >
        <EntryForm v-else kind="learned" :project="project.id" :today="today" @done="open = ''" />
      </section>
      <section class="sheet" aria-label="On the way">
        <h2>On the way</h2>
        <LogCard v-for="r in others" :key="r.id" :row="r" :today="today" />
        <p v-if="!others.length" class="soft">No trial piece, note or photo is put down.</p>
        <NButton v-if="open !== 'note'" size="small" @click="open = 'note'">Put a note down</NButton>
        <EntryForm v-else kind="note" :project="project.id" :today="today" @done="open = ''" />
      </section>
    </template>
  </main>
</template>

<style scoped>
.story {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}

.story > :first-child {
  grid-row: span 2;
}

.pictures {
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
  align-items: end;
  margin: 12px 0;
}

figure {
  margin: 0;
}

dl {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 10px 14px;
  margin: 0;
}

dt {
  font-weight: 600;
}

dd {
  margin: 0;
  display: grid;
  gap: 2px;
}

@media (width <= 900px) {
  .story {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
