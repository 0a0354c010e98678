<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import { plural } from '@/shared/words/words'

import Len from '@/shared/words/Len.vue'

/** What the seam costs, kept near wherever seams are spoken of. */
defineProps<{ cost: Schemas['SeamCost'] }>()
</script>

<template>
  <p>
    A row of {{ cost.units }} has {{ plural(cost.seams, 'seam') }} across: each <Len :of="cost.slip" /> too
    wide makes it <Len :of="cost.cost" /> short.
  </p>
</template>
