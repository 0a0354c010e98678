<script setup lang="ts">
import type { EChartsCoreOption } from 'echarts/core'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'

/** A plot; the library that draws it is fetched when one is first shown. What it shows stands in a table beside it too. */
const props = defineProps<{ option: EChartsCoreOption; label: string; height?: number }>()
const at = ref<HTMLElement>()
type Plots = typeof import('./plots')
let chart: ReturnType<Plots['begin']> | undefined
let sizes: ResizeObserver | undefined

onMounted(async () => {
  const { begin } = await import('./plots')
  if (!at.value) return
  chart = begin(at.value)
  chart.setOption(props.option)
  sizes = new ResizeObserver(() => chart?.resize())
  sizes.observe(at.value)
})
watch(
  () => props.option,
  (now) => chart?.setOption(now, { notMerge: true }),
)
onBeforeUnmount(() => {
  sizes?.disconnect()
  chart?.dispose()
})
</script>

<template>
  <div ref="at" class="plot" role="img" :aria-label="label" :style="{ height: `${height ?? 220}px` }" />
</template>

<style scoped>
.plot {
  width: 100%;
  min-width: 0;
}
</style>
