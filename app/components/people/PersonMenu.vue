<!-- Who works here; a touch asks. -->
<script setup lang="ts">
const session = useSession()
const open = ref(false)
</script>

<template>
  <button type="button" class="quiet" data-test="person" @click="open = true">
    {{ session.now?.person?.name ?? 'Who works?' }}
  </button>
  <LazyPersonDialog v-if="open" @close="open = false" />
</template>
