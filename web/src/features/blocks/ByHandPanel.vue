<script setup lang="ts">
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'

import type { Project } from '@/shared/api/client'
import { isBegun } from '@/shared/offline/typed'

import type { Sheet } from './api'
import SamplerForm from './SamplerForm.vue'
import SashingForm from './SashingForm.vue'

/** A centre laid by hand: where it is laid, and how it is laid anew by rule. */
const props = defineProps<{ project: Project; sheet: Sheet; byHand: boolean }>()
const centre = computed(() => props.sheet.blocks.find((b) => b.part === 'centre'))
const open = ref(
  (['sampler', 'sashing'] as const).find((form) => isBegun(`${form} ${props.project.id}`)) ?? '',
)
</script>

<template>
  <div class="by-hand">
    <template v-if="byHand">
      <p>Blocks, strips and units lie where you put them; how many of each follows from there.</p>
      <RouterLink
        v-if="centre"
        v-slot="{ navigate, href }"
        custom
        :to="{ name: 'lay', params: { project: project.id, block: centre.id } }"
      >
        <NButton type="primary" tag="a" :href="href" @click="navigate">Lay it by hand</NButton>
      </RouterLink>
    </template>
    <SamplerForm v-if="open === 'sampler'" :project="project" :sheet="sheet" @done="open = ''" />
    <NButton v-else text class="quiet" @click="open = 'sampler'">Lay blocks of several sizes…</NButton>
    <SashingForm v-if="open === 'sashing'" :project="project" :sheet="sheet" @done="open = ''" />
    <NButton v-else text class="quiet" @click="open = 'sashing'">Lay sashing of several strips…</NButton>
  </div>
</template>

<style scoped>
.by-hand {
  display: grid;
  gap: 10px;
  justify-items: start;
}
</style>
