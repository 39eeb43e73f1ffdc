<!-- Where a figure comes from: a mark beside it, whose words show on touch of its row; in words where `full`. -->
<script setup lang="ts">
import { PROVENANCE_WORDS, type Provenance } from '#core/quantity/provenance'

defineProps<{ of: Provenance; source?: string; full?: boolean }>()
const SHORT: Record<Provenance, string> = {
  std: 'std',
  practice: 'practice',
  memory: 'memory',
  model: 'model',
  shop: 'here',
}
/**
 * The surer a figure, the fuller its mark: measured here a disc, a standard a square, practice half, memory a ring,
 * ours a rhomb.
 */
const SHAPE: Record<Provenance, string> = {
  shop: 'M1 6a5 5 0 1 0 10 0a5 5 0 1 0 -10 0z',
  std: 'M1.5 1.5h9v9h-9z',
  practice: 'M6 1a5 5 0 0 0 0 10z',
  memory: '',
  model: '',
}
</script>

<template>
  <span
    class="relative inline-flex items-center gap-1.5 text-[0.8125rem] whitespace-nowrap"
    :class="of === 'shop' ? 'font-bold text-clean' : 'text-soft'"
    :title="`${PROVENANCE_WORDS[of]}${source ? `: ${source}` : ''}`"
  >
    <svg viewBox="0 0 12 12" width="10" height="10" aria-hidden="true">
      <path
        v-if="of === 'model'"
        d="M6 0.8L11.2 6L6 11.2L0.8 6z"
        fill="none"
        stroke="currentColor"
        stroke-width="1.5"
      />
      <circle
        v-else-if="of === 'memory' || of === 'practice'"
        cx="6"
        cy="6"
        r="4.6"
        fill="none"
        stroke="currentColor"
        stroke-width="1.5"
      />
      <path v-if="SHAPE[of]" :d="SHAPE[of]" fill="currentColor" />
    </svg>
    <span :class="{ 'sr-only': !full }">{{ full ? PROVENANCE_WORDS[of] : SHORT[of] }}</span>
  </span>
</template>
