<script setup lang="ts">
/** An estimate and the interval that holds it nine times in ten, as shares of half a scale: -1 its left end, 1 its right. */
defineProps<{ at: number; from: number; to: number }>()
const half = (v: number) => `${50 + v * 50}%`
</script>

<template>
  <div class="scale" aria-hidden="true">
    <i class="zero" />
    <i class="bar" :style="{ left: half(Math.min(at, 0)), width: `${Math.abs(at) * 50}%` }" />
    <i class="whisker" :style="{ left: half(from), width: `${(to - from) * 50}%` }" />
  </div>
</template>

<style scoped>
.scale {
  position: relative;
  height: 40px;
  border-inline: 1px solid var(--steel-line);
}

.zero {
  position: absolute;
  inset: 0 auto 0 50%;
  width: 2px;
  background: var(--ink);
}

.bar {
  position: absolute;
  top: 9px;
  bottom: 9px;
  background: #2c7480;
}

.whisker {
  position: absolute;
  top: 14px;
  height: 12px;
  border: 2px solid var(--ink);
  border-block: 0;
  background: linear-gradient(var(--ink), var(--ink)) center / 100% 2px no-repeat;
}
</style>
