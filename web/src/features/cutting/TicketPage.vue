<script setup lang="ts">
import type { Project } from '@/shared/api/client'
import Len from '@/shared/words/Len.vue'
import UnitPicture from '@/shared/drawing/UnitPicture.vue'

import { useTicket } from './api'

/** The bench ticket, large enough to read from across the table or on a phone. */
const props = defineProps<{ project: Project; colours: Record<string, string> }>()
const { data } = useTicket(() => props.project.id)
</script>

<template>
  <main id="main" class="tickets">
    <h2 class="visually-hidden">Bench ticket</h2>
    <p v-if="data && !data.length" class="sheet">No unit is planned in this project.</p>
    <section v-for="(t, i) in data ?? []" :key="i" class="sheet" :aria-label="t.name">
      <div class="head">
        <div>
          <h3>{{ t.name }}</h3>
          <p>{{ t.wanted }}</p>
          <p class="target">
            Trim to <Len :of="t.target" about /><template v-if="t.target.exact !== t.target_height.exact">
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
      <template v-if="t.sew.length">
        <h4>Sew</h4>
        <ol>
          <li v-for="s in t.sew" :key="s">{{ s }}</li>
        </ol>
      </template>
      <h4>Press</h4>
      <p>{{ t.press }}</p>
      <h4>Trim</h4>
      <ol>
        <li v-for="s in t.trim" :key="s">{{ s }}</li>
      </ol>
      <p v-if="t.tips.length" class="soft">Then it shows: {{ t.tips.join('; ') }}.</p>
      <p>
        <strong>{{ t.per_box > 1 ? `${t.boxes} batches of ${t.per_box}` : `${t.boxes} to make` }}</strong>
      </p>
      <p v-for="c in t.cautions" :key="c" class="soft">{{ c }}</p>
    </section>
  </main>
</template>

<style scoped>
.tickets {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 420px), 1fr));
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
  font-size: 18px;
  line-height: 1.35;
}
</style>
