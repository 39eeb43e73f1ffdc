<!-- The line along the top of every page but the bench. -->
<script setup lang="ts">
/** `wide`: the slot fills the line itself. */
defineProps<{ title: string; wide?: boolean }>()
</script>

<template>
  <header
    class="no-print flex min-h-14 flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule bg-panel px-4 py-1 sm:px-6"
    :class="{ 'lg:flex-nowrap': wide }"
  >
    <NuxtLink
      to="/"
      class="-ml-2.5 flex min-h-11 min-w-11 items-center justify-center text-ink"
      aria-label="Ocho, to the Floor"
      ><TheMark
    /></NuxtLink>
    <h1
      class="text-lg font-bold"
      :class="{ 'max-sm:min-w-0 max-sm:basis-[55%] max-sm:truncate lg:min-w-16 lg:truncate': wide }"
    >
      {{ title }}
    </h1>
    <slot />
    <div :class="wide ? 'max-sm:order-1' : 'ml-auto'"><PersonMenu /></div>
  </header>
</template>
