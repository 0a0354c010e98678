<script setup lang="ts">
import { NButton } from 'naive-ui'
import { RouterLink } from 'vue-router'

/** A subject at the bench: what it is and its lots on one side, its steps on the other, and the way to one step at a time. */
defineProps<{
  project: string
  subject: 'units' | 'blocks' | 'quilt'
  of?: string
  /** What the side is called. */
  label: string
  /** Something can be begun. */
  begin: boolean
  cautions: readonly string[]
}>()
</script>

<template>
  <div class="bench">
    <section class="sheet side" :aria-label="label">
      <slot name="first" />
      <RouterLink
        v-if="begin"
        v-slot="{ navigate, href }"
        custom
        :to="{ name: 'bench', params: { project }, query: of ? { subject, of } : { subject } }"
      >
        <NButton type="primary" size="large" tag="a" :href="href" block @click="navigate">
          One step at a time
        </NButton>
      </RouterLink>
      <slot name="side" />
      <p v-for="c in cautions" :key="c" class="caution">{{ c }}</p>
    </section>
    <slot />
  </div>
</template>

<style scoped>
.bench {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}

.side {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}

.side :slotted(.basted) {
  margin: 6px 0;
}

.side :slotted(.big) {
  font-size: 34px;
  line-height: 1;
  font-weight: 600;
}

.bench :slotted(.steps) {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 12px;
}

.caution {
  border-left: 5px solid var(--oilskin);
  padding-left: 10px;
}

@media (width <= 900px) {
  .bench {
    grid-template-columns: 244px minmax(0, 1fr);
  }
}

@media (width <= 720px) {
  .bench {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
