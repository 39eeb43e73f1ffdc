<!-- The password once more before an owner's act; on every page that has one. -->
<script setup lang="ts">
const asking = useConfirming()
</script>

<template>
  <LazyConfirmDialog v-if="asking" @typed="asking?.(true)" @close="asking?.(false)" />
</template>
