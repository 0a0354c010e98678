<script setup lang="ts">
/** The letter that a pile lies under, with its fabric at the side. */
defineProps<{ letter: string; colour?: string }>()
</script>

<template>
  <b :style="{ borderColor: colour }">{{ letter }}</b>
</template>

<style scoped>
b {
  display: grid;
  place-items: center;
  width: 44px;
  height: 36px;
  border: 0 solid;
  border-left-width: 8px;
  background: #fff;
  box-shadow: inset 0 0 0 1px var(--steel-line);
}
</style>
