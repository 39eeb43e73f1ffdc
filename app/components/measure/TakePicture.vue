<!-- A picture to measure in: by the camera, from a file, or, in the demo shop, from the stand-in that plays a camera. -->
<script setup lang="ts">
defineProps<{ busy: boolean; another: boolean; standIn: boolean }>()
const emit = defineEmits<{ taken: [file: Blob]; standIn: [] }>()
function take(event: Event) {
  const picked = pickedFile(event)
  if (picked) emit('taken', picked)
}
</script>

<template>
  <label class="act cursor-pointer justify-center" :class="{ 'opacity-50': busy }"
    >{{ busy ? 'Opening' : another ? 'Take one more' : 'Take the picture'
    }}<input
      type="file"
      accept="image/*"
      capture="environment"
      class="sr-only"
      :disabled="busy"
      data-test="take"
      @change="take"
  /></label>
  <label class="also cursor-pointer justify-center"
    >Choose a file<input
      type="file"
      accept="image/*"
      class="sr-only"
      :disabled="busy"
      data-test="choose"
      @change="take"
  /></label>
  <button
    v-if="standIn"
    type="button"
    class="also justify-center"
    :disabled="busy"
    data-test="stand-in-camera"
    @click="emit('standIn')"
  >
    From the stand-in camera
  </button>
</template>
