<!-- What is measured with the chain on the largest sprocket waits until L was seen by hand. -->
<script setup lang="ts">
import { L_FIRST } from '#core/rear/gates'

defineProps<{ job: number }>()
</script>

<template>
  <p class="stopped" role="alert" data-test="front-barred">
    {{ L_FIRST }}. <NuxtLink class="underline" :to="stageLink(job, 'stops')">To the stops</NuxtLink>
  </p>
</template>
