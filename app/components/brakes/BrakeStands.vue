<!-- How a brake stands now, in a word and by whom. -->
<script setup lang="ts">
import { brakeStands, type BrakeState } from '#core/brake/state'

const props = defineProps<{ state: BrakeState; people: Readonly<Record<string, string>> }>()
const stands = computed(() => brakeStands(props.state))
const TONE = { none: 'text-clean', holds: 'text-clean', failed: 'text-stop', open: 'text-soft' } as const
const words = computed(() =>
  [stands.value.words, stands.value.by && props.people[stands.value.by]].filter(Boolean).join(', '),
)
</script>

<template>
  <span class="font-semibold" :class="TONE[stands.is]">{{ words }}</span>
</template>
