<!-- What this shop has seen of a figure on such bikes: one touch takes it. What "such" means is said, and can be
     widened. -->
<script setup lang="ts">
import { recordRule } from '#core/records/chapters'
import { closestOf, sayLike, usualOf, type Like, type Width } from '#core/records/like'

const props = defineProps<{
  standard: string
  figure: string
  likes: readonly Like[]
  /** Told, and not to be taken: what it leads to is seen, not typed. */
  told?: boolean
}>()
const emit = defineEmits<{ take: [value: number] }>()
const rule = computed(() => recordRule(props.figure))
const wide = ref<Width | null>(null)
const one = computed(() => props.likes.find(l => l.width === wide.value) ?? closestOf(props.likes))
</script>

<template>
  <div v-if="rule && one" class="border-l-[6px] border-rule pl-2" data-test="like">
    <component
      :is="told ? 'p' : 'button'"
      v-bind="told ? {} : { type: 'button' }"
      class="flex min-h-11 w-full items-center justify-between gap-2 text-left"
      data-test="like-take"
      @click="!told && emit('take', usualOf(rule, one.seen))"
    >
      <span class="figure text-[0.9375rem] leading-snug" data-test="like-words">{{ sayLike(rule, one.seen) }}</span
      ><span v-if="!told" class="font-semibold underline underline-offset-4">Take it</span>
    </component>
    <details class="small">
      <summary class="min-h-11 cursor-pointer py-2.5" data-test="like-what">
        Bikes like this here: {{ one.words }}
      </summary>
      <div v-if="likes.length > 1" class="flex flex-wrap gap-1" role="group" aria-label="How wide">
        <button
          v-for="l in likes"
          :key="l.width"
          type="button"
          class="also min-h-11! text-left"
          :class="{ chosen: l.width === one.width }"
          :aria-pressed="l.width === one.width"
          :data-test="`like-${l.width}`"
          @click="wide = l.width"
        >
          {{ l.words }}, {{ l.seen.bikes }}
        </button>
      </div>
      <NuxtLink
        :to="`/standards/records/${encodeURIComponent(standard)}?figure=${encodeURIComponent(figure)}`"
        class="inline-flex min-h-11 items-center underline"
        >Every figure and its job</NuxtLink
      >
    </details>
  </div>
</template>
