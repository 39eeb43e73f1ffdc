<!-- The parts of Standards, in the line along the top. -->
<script setup lang="ts">
const route = useRoute()
const PLACES = [
  ['/standards', 'Catalogue'],
  ['/standards/match', 'Match'],
  ['/standards/measure', 'Measure'],
  ['/standards/records', 'Records'],
  ['/standards/files', 'Files'],
] as const
const here = (path: string) => (path === '/standards' ? route.path === path : route.path.startsWith(path))
</script>

<template>
  <nav class="order-last -mx-1 flex w-full gap-0 overflow-x-auto sm:order-none sm:w-auto" aria-label="Standards">
    <NuxtLink
      v-for="[path, words] in PLACES"
      :key="path"
      :to="path"
      class="flex min-h-11 items-center border-b-4 px-2 text-[0.9375rem] font-semibold sm:px-3 sm:text-base whitespace-nowrap"
      :class="here(path) ? 'border-ink' : 'border-transparent text-soft'"
      :aria-current="here(path) ? 'page' : undefined"
      >{{ words }}</NuxtLink
    >
  </nav>
</template>
