<script setup lang="ts">
import { reactive } from 'vue'

import type { Schemas } from '@/shared/api/client'

import MeasuredSide from './MeasuredSide.vue'

/** One finished block, across and down. */
defineProps<{ project: string; block: string; name: string; one: Schemas['MeasuredOne']; said?: string }>()
const problems = reactive({ width: '', height: '' })
</script>

<template>
  <tr>
    <th scope="row">{{ one.number }}</th>
    <td v-for="way in ['width', 'height'] as const" :key="way">
      <MeasuredSide
        :project="project"
        :block="block"
        :nth="one.number"
        :way="way"
        :one="one"
        :labelled="`${name} ${one.number}, ${way === 'width' ? 'across' : 'down'}`"
        @refused="problems[way] = $event"
      />
    </td>
    <td>
      <span v-if="problems.width || problems.height" class="serious" role="alert">
        {{ problems.width || problems.height }}
      </span>
      <span v-else>{{ said }}</span>
    </td>
  </tr>
</template>
