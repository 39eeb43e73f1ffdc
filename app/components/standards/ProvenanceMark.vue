<!-- Where a figure comes from, short beside it and in full when asked. -->
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
</script>

<template>
  <span
    class="text-[0.8125rem] whitespace-nowrap"
    :class="of === 'shop' ? 'font-bold text-clean' : 'text-soft'"
    :title="`${PROVENANCE_WORDS[of]}${source ? `: ${source}` : ''}`"
    >{{ full ? PROVENANCE_WORDS[of] : SHORT[of] }}</span
  >
</template>
