<!-- What comes before any screw on this bike: cured there, or worked on as it is by name. -->
<script setup lang="ts">
import type { Head } from '#core/rear/heads'
import type { Bench } from '~/composables/bench'

defineProps<{ bench: Bench; head: Head }>()
const TO = {
  sense: ['To the sense check', 'stage/sense'],
  hanger: ['To the hanger', 'stage/hanger'],
  parts: ['What would fit', ''],
} as const
</script>

<template>
  <p
    class="stopped flex flex-wrap items-center justify-between gap-2 text-sm leading-tight"
    role="status"
    data-test="put-right"
  >
    {{ head.words }}
    <span class="flex gap-1"
      ><NuxtLink :to="`/jobs/${bench.number}/${TO[head.at][1]}`" class="quiet underline whitespace-nowrap">{{
        TO[head.at][0]
      }}</NuxtLink
      ><button
        v-if="head.waive"
        type="button"
        class="quiet whitespace-nowrap"
        data-test="waive"
        @click="bench.put({ kind: 'waived', what: head.waive }, 'Worked on as it is')"
      >
        Work on as it is
      </button></span
    >
  </p>
</template>
