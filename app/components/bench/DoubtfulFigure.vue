<!-- A figure far from all others of such bikes: kept only when a person says so. -->
<script setup lang="ts">
defineProps<{ question: string }>()
const emit = defineEmits<{ keep: []; leave: [] }>()
</script>

<template>
  <p
    class="stopped sticky top-0 z-30 flex flex-wrap items-center justify-between gap-2"
    role="alert"
    data-test="doubtful"
  >
    {{ question }}
    <span class="flex gap-1"
      ><button type="button" class="also min-h-11!" data-test="keep-figure" @click="emit('keep')">Keep it</button
      ><button type="button" class="quiet" data-test="leave-figure" @click="emit('leave')">Measure again</button></span
    >
  </p>
</template>
