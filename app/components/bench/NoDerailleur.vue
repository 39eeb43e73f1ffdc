<!-- What a page of the rear derailleur says on a bike that has none. -->
<script setup lang="ts">
defineProps<{ number: number }>()
</script>

<template>
  <main class="grid max-w-xl gap-3 p-6">
    <p class="text-2xl leading-tight font-bold">No derailleur at the back</p>
    <p>This bike was taken in without one. Is there one after all? Measure its parts, and this bench is there.</p>
    <NuxtLink class="act" :to="`/jobs/${number}/hub`" data-test="none-to-hub">To the hub gear</NuxtLink>
    <NuxtLink class="also" :to="`/jobs/${number}/brakes`">To the brakes</NuxtLink>
    <NuxtLink class="also" :to="`/standards/measure?job=${number}`">Measure the parts</NuxtLink>
  </main>
</template>
