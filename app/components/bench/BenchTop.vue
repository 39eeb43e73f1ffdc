<!-- The head of a bench: which bike, what was said, its numbers, whether all is saved, who works. -->
<script setup lang="ts">
import { sayParts } from '#core/rear/parts'

const { state, record, waiting } = storeToRefs(useLedger())
</script>

<template>
  <header class="top">
    <NuxtLink to="/" class="flex min-h-11 items-center text-ink" aria-label="Ocho, to the Floor"><TheMark /></NuxtLink>
    <h1 class="font-bold whitespace-nowrap">Tag {{ record?.tag ?? '' }}</h1>
    <span class="min-w-0 truncate">{{ record?.bike.name }}</span>
    <span v-if="record" class="hidden min-w-0 truncate text-soft md:inline">“{{ record.complaint }}”</span>
    <span v-if="state.rear.parts" class="figure ml-auto hidden text-sm whitespace-nowrap text-soft xl:inline">{{
      sayParts(state.rear.parts)
    }}</span>
    <span
      class="ml-auto font-semibold whitespace-nowrap xl:ml-0"
      :class="waiting.length ? 'text-stop' : 'text-clean'"
      role="status"
      data-test="saved"
      >{{ waiting.length ? `${waiting.length} waiting` : 'saved' }}</span
    >
    <PersonMenu />
  </header>
</template>

<style scoped>
.top {
  grid-area: top;
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 0 16px;
  background: var(--panel);
  border-bottom: 1px solid var(--rule);
  overflow: hidden;
}
@media (max-width: 1000px) {
  .top {
    gap: 4px 12px;
    padding: 4px 12px;
  }
}
</style>
