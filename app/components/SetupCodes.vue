<!-- The setup in square codes, 45 mm each on paper, and beside them what its rider may do. -->
<script setup lang="ts">
import { squareSvg } from '#core/paper/square'

const props = defineProps<{ codes: readonly string[]; card: readonly string[] }>()
const squares = computed(() =>
  props.codes.map((text, i) => ({
    src: `data:image/svg+xml,${encodeURIComponent(squareSvg(text, 'Q'))}`,
    alt: `Its setup as a square code${props.codes.length > 1 ? `, ${i + 1} of ${props.codes.length}` : ''}`,
  })),
)
</script>

<template>
  <section class="mt-3 flex flex-wrap items-start gap-3" aria-label="Its setup, to go with it" data-test="setup-codes">
    <img v-for="s in squares.slice(0, 1)" :key="s.src" :src="s.src" :alt="s.alt" class="square" />
    <div v-if="card.length" class="min-w-52 flex-1">
      <h2 class="font-bold">On the road</h2>
      <p v-for="t in card" :key="t">{{ t }}</p>
    </div>
    <!-- the words between them, so that a phone sees one of two at a time -->
    <img v-for="s in squares.slice(1)" :key="s.src" :src="s.src" :alt="s.alt" class="square" />
  </section>
</template>

<style scoped>
.square {
  width: 45mm;
  height: 45mm;
}
</style>
