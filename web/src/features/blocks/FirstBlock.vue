<script setup lang="ts">
import { NButton } from 'naive-ui'
import { ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import type { Project } from '@/shared/api/client'

import type { Sheet } from './api'
import LibraryDialog from './LibraryDialog.vue'
import { useBlocks } from './useBlocks'

/** Goes on to the first block; without any, the first one is chosen here. */
const props = defineProps<{ project: Project; sheet: Sheet; colours: Record<string, string> }>()
const { begin } = useBlocks(() => props.project.id)
const router = useRouter()
const route = useRoute()
const choosing = ref(false)

watch(
  () => props.sheet.blocks[0]?.id,
  (block) => {
    const name =
      route.name === 'joins'
        ? route.query.to === 'press'
          ? 'press-block'
          : 'join'
        : route.query.to === 'diagnose'
          ? 'diagnose-block'
          : 'lay'
    if (block) void router.replace({ name, params: { project: props.project.id, block } })
  },
  { immediate: true },
)
</script>

<template>
  <main id="main" class="sheet none">
    <h2>No block is laid out here</h2>
    <p>
      Begin with an arrangement, or with an empty grid. Its units are counted, its seams put in order and
      pressed on paper first, and the quilt is put together from it.
    </p>
    <div class="ways">
      <NButton type="primary" @click="choosing = true">Choose an arrangement</NButton>
      <NButton @click="begin('')">Begin with an empty grid</NButton>
    </div>
    <LibraryDialog
      v-model:show="choosing"
      title="Which arrangement to begin with"
      :colours="colours"
      :blocks="[]"
      empty
      @choose="begin($event)"
    />
  </main>
</template>

<style scoped>
.none {
  display: grid;
  gap: 14px;
  justify-items: start;
  max-width: 680px;
}

.ways {
  display: flex;
  gap: 12px;
  flex-wrap: wrap;
}
</style>
