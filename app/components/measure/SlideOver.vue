<!-- Photographs of a job with their measuring lines, one slid over the other: as found and as left. -->
<script setup lang="ts">
import { MEASURED, type PhotoView } from '#core/http/photos'
import type { JobPhotos } from '~/composables/jobPhotos'

const props = defineProps<{ of: JobPhotos; closed: boolean }>()
const { photos, trouble, busy, urlOf, takeOff } = props.of
const share = ref(50)
const WORDS = { 'measured-found': 'As found', 'measured-left': 'As left' } as const
/** What of each is looked at: the last unless another was touched. */
const picked = ref<Partial<Record<(typeof MEASURED)[number], string>>>({})
const rows = computed(() =>
  MEASURED.map(of => {
    const all = photos.value?.filter(p => p.of === of) ?? []
    return { of, words: WORDS[of], all, shown: all.find(p => p.id === picked.value[of]) ?? all.at(-1) ?? null }
  }),
)
const [found, left] = [computed(() => rows.value[0]!.shown), computed(() => rows.value[1]!.shown)]
const off = (p: PhotoView) => void takeOff(p)
</script>

<template>
  <section aria-label="As found and as left" class="grid gap-2">
    <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
    <p v-if="photos === null && !trouble">Looking</p>
    <template v-if="found && left">
      <div class="relative overflow-hidden rounded" data-test="slide">
        <img :src="urlOf(found)" alt="As found" class="block w-full" />
        <img
          :src="urlOf(left)"
          alt="As left"
          class="absolute inset-0 h-full w-full object-cover"
          :style="{ clipPath: `inset(0 0 0 ${share}%)` }"
        />
      </div>
      <label class="label"
        >As found to the left, as left to the right<input
          v-model.number="share"
          type="range"
          min="0"
          max="100"
          class="min-h-11 w-full"
          data-test="slider"
      /></label>
    </template>
    <p v-else-if="photos" class="text-soft">
      {{
        found || left
          ? `Only one is kept, ${found ? 'as found' : 'as left'}: measure once more to see both.`
          : 'No measured photographs yet.'
      }}
    </p>
    <img
      v-if="!(found && left) && (found ?? left)"
      :src="urlOf((found ?? left)!)"
      alt="As measured"
      class="w-full rounded"
    />
    <div v-for="row in rows" :key="row.of" class="grid gap-1">
      <p v-if="row.all.length" class="label">{{ row.words }}</p>
      <div class="flex flex-wrap gap-2">
        <figure v-for="(p, i) in row.all" :key="p.id" class="grid justify-items-start">
          <button
            type="button"
            class="rounded border-2"
            :class="row.shown?.id === p.id ? 'border-ink' : 'border-transparent'"
            :aria-pressed="row.shown?.id === p.id"
            :aria-label="`Look at ${row.words.toLowerCase()}, ${i + 1}`"
            @click="picked = { ...picked, [row.of]: p.id }"
          >
            <img :src="urlOf(p)" alt="" class="h-20 w-28 rounded-sm object-cover" data-test="measured-photo" />
          </button>
          <button
            v-if="!closed"
            type="button"
            class="quiet min-h-11 text-sm text-stop"
            :aria-label="`Take ${row.words.toLowerCase()}, ${i + 1}, off`"
            :disabled="busy"
            data-test="measured-off"
            @click="off(p)"
          >
            Take off
          </button>
        </figure>
      </div>
    </div>
  </section>
</template>
