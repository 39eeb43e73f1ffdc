<!-- What this shop has seen on bikes like this one, where it has seen any. -->
<script setup lang="ts">
import type { RunName } from '#core/cable/housing'

const props = defineProps<{ run: RunName; figure: string; told?: boolean }>()
const emit = defineEmits<{ take: [value: number] }>()
const here = inject(LIKE, null)
const likes = computed(() => here?.of(props.run, props.figure) ?? [])
</script>

<template>
  <LazyLikeShown
    v-if="here && likes.length"
    :standard="here.standard(run)"
    :figure="figure"
    :likes="likes"
    :told="told"
    @take="emit('take', $event)"
  />
</template>
