<script setup lang="ts">
const hydrated = ref(false)
onMounted(() => {
  hydrated.value = true
  restoreTheme()
})
</script>

<template>
  <div :data-hydrated="hydrated || undefined">
    <NuxtPage />
  </div>
</template>
