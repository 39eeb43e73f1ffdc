<!-- A switch: what it switches, and off or on. -->
<script setup lang="ts">
defineProps<{ words: string; test: string }>()
const on = defineModel<boolean>({ required: true })
const CHOICES = [
  { value: false, words: 'Off' },
  { value: true, words: 'On' },
]
const chosen = computed({
  get: (): boolean | null => on.value,
  set: value => void (on.value = value === true),
})
</script>

<template>
  <div class="grid gap-1">
    <p class="label">{{ words }}</p>
    <ChoiceRow v-model="chosen" :label="words" :choices="CHOICES" :test="test" />
  </div>
</template>
