<!-- What a barrel does: the sleeve out of its thread, the housing's way longer, the wire drawn; or in, and slack. -->
<script setup lang="ts">
const props = defineProps<{ out: boolean }>()
const by = computed(() => (props.out ? 10 : 0))
</script>

<template>
  <svg viewBox="0 0 150 34" width="150" height="34" aria-hidden="true" class="block shrink-0">
    <path d="M0 17H150" stroke="currentColor" stroke-width="1.5" />
    <rect x="0" y="10" :width="34 - by" height="14" rx="2" fill="var(--soft)" />
    <rect :x="34 - by" y="6" width="34" height="22" rx="3" fill="none" stroke="currentColor" stroke-width="2.5" />
    <path v-for="i in 4" :key="i" :d="`M${40 - by + i * 5} 6v22`" stroke="currentColor" stroke-width="1" />
    <rect x="68" y="4" width="20" height="26" fill="none" stroke="currentColor" stroke-width="2" />
    <path v-if="out" :d="`M${68 - by} 9h${by}M${68 - by} 25h${by}`" stroke="currentColor" stroke-width="2" />
    <path
      :d="out ? 'M100 17h34m-8 -6l8 6l-8 6' : 'M134 17h-34m8 -6l-8 6l8 6'"
      fill="none"
      stroke="currentColor"
      stroke-width="2.5"
    />
  </svg>
</template>
