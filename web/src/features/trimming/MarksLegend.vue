<template>
  <section class="sheet legend" aria-label="Marks in the drawings">
    <span><i class="ruler" /> ruler</span>
    <span><i class="diagonal" /> its 45-degree or diagonal line</span>
    <span><i class="blade" /> cut here</span>
    <span><i class="fresh" /> fresh edge</span>
    <span><i class="stitch" /> stitching</span>
  </section>
</template>

<style scoped>
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 24px;
  padding: 8px 18px;
}

i {
  display: inline-block;
  width: 34px;
  height: 0;
  vertical-align: 4px;
  margin-right: 4px;
  border-top: 3px solid var(--ink);
}

.ruler {
  height: 16px;
  vertical-align: -3px;
  border: 2px solid var(--ink);
  background: rgb(214 236 240 / 60%);
}

.diagonal {
  border-top: 2px dashed #0b3a41;
}

.blade {
  border-top: 3px dashed var(--buoy);
}

.fresh {
  border-top: 5px solid var(--oilskin);
}

.stitch {
  border-top: 2px dotted var(--ink);
}
</style>
