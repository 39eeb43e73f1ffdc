<!-- How far the pulley stands from its plane, mm: as seen at a stop, or as measured on a click. -->
<script setup lang="ts">
const props = defineProps<{ of: 'stop' | 'click' }>()
const emit = defineEmits<{ figure: [mm: number] }>()
const USUAL = { stop: [1.5, 1, 0.5, 0, -0.5, -1, -1.5], click: [0.9, 0.6, 0.3, 0, -0.3, -0.6, -0.9] }
const MOST_MM = 15
</script>

<template>
  <FigurePad
    label="Offset"
    unit="mm"
    :usual="USUAL[props.of]"
    :least="-MOST_MM"
    :most="MOST_MM"
    :zero-word="of === 'stop' ? 'line' : '0'"
    in-word="inboard"
    out-word="outboard"
    @figure="emit('figure', $event)"
  />
</template>
