<script setup lang="ts">
import { NButton, NUpload, type UploadSettledFileInfo } from 'naive-ui'

/** Opens a file of one's own; nothing is sent from here. */
defineProps<{ accept: string; most?: number }>()
const emit = defineEmits<{ file: [File] }>()

function take({ file }: { file: UploadSettledFileInfo }) {
  if (file.file) emit('file', file.file)
}
</script>

<template>
  <NUpload
    class="opens"
    :accept="accept"
    :default-upload="false"
    :show-file-list="false"
    :file-list="[]"
    @change="take"
  >
    <NButton size="small"><slot /></NButton>
  </NUpload>
</template>

<style scoped>
.opens {
  width: auto;
}
</style>
