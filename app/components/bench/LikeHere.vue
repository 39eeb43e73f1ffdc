<!-- What this shop has seen on bikes like this one, where it has seen any. -->
<script setup lang="ts">
import type { RunName } from '#core/cable/housing'

const props = defineProps<{ run: RunName; figure: string; told?: boolean }>()
const emit = defineEmits<{ take: [value: number] }>()
const here = inject(LIKE, null)
const some = computed(() => (here?.of(props.run, props.figure).length ?? 0) > 0)
</script>

<template>
  <LazyLikeShown v-if="some" :run="run" :figure="figure" :told="told" @take="emit('take', $event)" />
</template>
