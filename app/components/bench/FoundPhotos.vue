<!-- Photographs of a run or of the bike as it was found, taken with the tablet and made smaller on it. -->
<script setup lang="ts">
import type { PhotoOf } from '#core/http/photos'
import { smallerPhoto } from '~/composables/photo'

const props = defineProps<{ job: number; of: PhotoOf; closed?: boolean }>()
const { photos, trouble, busy, urlOf, take: keep, takeOff } = useJobPhotos(props.job)
const here = computed(() => photos.value?.filter(p => p.of === props.of) ?? [])
async function take(event: Event) {
  const file = pickedFile(event)
  if (!file) return
  try {
    await keep(props.of, await smallerPhoto(file))
  } catch {
    trouble.value = 'That is not a picture this tablet can read: take it again with the camera'
  }
}
</script>

<template>
  <section aria-label="Photographs as found" class="grid gap-2">
    <div class="flex flex-wrap gap-2">
      <figure v-for="(p, i) in here" :key="p.id" class="relative">
        <a :href="urlOf(p)" target="_blank" rel="noopener"
          ><img :src="urlOf(p)" :alt="`As found, ${i + 1}`" class="h-20 w-28 rounded object-cover" data-test="photo"
        /></a>
        <button
          v-if="!closed"
          type="button"
          class="quiet min-h-11 justify-center text-sm text-stop"
          :aria-label="`Take photograph ${i + 1} off`"
          data-test="photo-off"
          @click="takeOff(p)"
        >
          Take off
        </button>
      </figure>
    </div>
    <p v-if="closed && photos !== null && !here.length" class="text-soft">No photographs.</p>
    <label v-if="!closed" class="also cursor-pointer justify-center" :class="{ 'opacity-50': busy }"
      >{{ busy ? 'Sending' : here.length ? 'Another photograph' : 'Photograph it as found'
      }}<input
        type="file"
        accept="image/*"
        capture="environment"
        class="sr-only"
        :disabled="busy"
        data-test="photo-take"
        @change="take"
    /></label>
    <p v-if="trouble" class="stopped" role="alert" data-test="photo-trouble">{{ trouble }}</p>
  </section>
</template>
