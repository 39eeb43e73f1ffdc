<!-- What it is: the chance of each cause, and the tension offset with its spread. -->
<script setup lang="ts">
import { CAUSES, CAUSE_WORDS } from '#core/response/causes'
import type { Picture } from '#core/advice/picture'
import { sayChance } from '#core/quantity/chance'

const props = defineProps<{ picture: Picture }>()
const rows = computed(() => CAUSES.map(c => ({ name: CAUSE_WORDS[c], chance: props.picture.causes[c] })))
const offset = computed(() => {
  const { mean, sd } = props.picture.offsetMm
  return {
    words: Math.abs(mean) < 0.05 ? 'in the middle' : mean > 0 ? 'too tight' : 'too slack',
    figure: `${Math.abs(mean).toFixed(2)} ± ${sd.toFixed(2)} mm`,
  }
})
</script>

<template>
  <section aria-label="What it is" class="border-t border-rule pt-1.5">
    <p class="flex items-baseline justify-between gap-2">
      <span>Cable {{ offset.words }}</span><span class="figure" data-test="offset">{{ offset.figure }}</span>
    </p>
    <ul class="causes">
      <li v-for="r in rows" :key="r.name" class="cause">
        <span class="text-[0.9375rem]">{{ r.name }}</span>
        <span class="bar h-2 rounded-sm bg-ground"
          ><span class="block h-2 rounded-sm bg-ink" :style="{ width: `${Math.round(r.chance * 100)}%` }"
        /></span>
        <span
          class="figure whitespace-nowrap text-right text-[0.9375rem]"
          :data-test="`cause-${r.name.toLowerCase()}`"
          >{{ sayChance(r.chance) }}</span
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.causes {
  display: grid;
  /* two abreast, one where letters are set larger */
  grid-template-columns: repeat(auto-fit, minmax(min(100%, max(9rem, 40%)), 1fr));
  column-gap: 20px;
  margin-top: 4px;
}
.cause {
  display: grid;
  grid-template-columns: 4.6rem 1fr 3.2rem;
  align-items: center;
  gap: 6px;
  line-height: 24px;
}
/* little height: three abreast, the figures alone */
@media (max-height: 700px) and (min-width: 1001px) {
  .causes {
    grid-template-columns: repeat(3, minmax(0, 1fr));
    column-gap: 12px;
    font-size: 0.875rem;
  }
  .cause {
    grid-template-columns: 1fr auto;
    line-height: 20px;
  }
  .bar {
    display: none;
  }
}
</style>
