<script setup lang="ts">
useTheme()
const hydrated = ref(false)
onMounted(() => {
  hydrated.value = true
})
</script>

<template>
  <div :data-hydrated="hydrated || undefined">
    <NuxtPage />
  </div>
</template>
