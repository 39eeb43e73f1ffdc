<!-- Every pair: clear by how many mm on which plate, with the click that serves it best. -->
<script setup lang="ts">
import type { Pair } from '#core/front/rub'

const props = defineProps<{
  map: readonly (readonly Pair[])[]
  rings: readonly number[]
  teeth: readonly number[]
  chosen: Pair | null
  /** Whether clearances are worked out; else a pair is only chosen. */
  modelled: boolean
  /**
   * What was seen of a pair, by ring and sprocket: which plate rubs, null when neither does; undefined where nobody
   * looked.
   */
  seen: (ring: number, sprocket: number) => 'inner' | 'outer' | null | undefined
}>()
const emit = defineEmits<{ choose: [pair: Pair] }>()
const MARK = { inner: '▼', outer: '▲' } as const
/** Seen beats worked out. */
function cell(p: Pair): { text: string; words: string; tone: string } {
  const told = props.seen(p.ring, p.sprocket)
  if (told !== undefined)
    return told === null
      ? { text: '✓', words: 'seen: quiet', tone: 'border-ink text-clean' }
      : { text: MARK[told], words: `seen: rubs the ${told} plate`, tone: 'border-stop font-bold text-stop' }
  if (!props.modelled) return { text: '?', words: 'look whether it rubs', tone: 'border-rule' }
  return {
    text: `${p.rubs ? MARK[p.rubs] : ''}${Math.abs(p.clearMm).toFixed(1)}`,
    words: `${p.clearMm.toFixed(1)} mm ${p.rubs ? `short on the ${p.rubs} plate` : `clear on the ${p.innerMm < p.outerMm ? 'inner' : 'outer'} plate`}, ${p.click}`,
    tone: p.rubs ? 'border-stop font-bold text-stop' : p.near ? 'border-ink' : 'border-rule text-clean',
  }
}
</script>

<template>
  <div class="shrink-0 overflow-x-auto pb-1" data-test="rub-map">
    <table class="w-full border-collapse text-center">
      <thead>
        <tr>
          <td />
          <th v-for="t in [...teeth].reverse()" :key="t" scope="col" class="figure px-1 py-1 font-semibold">{{ t }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, r) in map" :key="r">
          <th scope="row" class="figure pr-2 text-right text-lg font-semibold">{{ rings[r] }}</th>
          <td v-for="p in [...row].reverse()" :key="p.sprocket" class="p-0.5">
            <button
              type="button"
              class="figure min-h-12 w-full min-w-12 rounded border-2 text-[0.9375rem]"
              :class="[cell(p).tone, chosen?.ring === p.ring && chosen?.sprocket === p.sprocket ? 'bg-panel' : '']"
              :aria-pressed="chosen?.ring === p.ring && chosen?.sprocket === p.sprocket"
              :aria-label="`${rings[r]} with ${teeth[p.sprocket]}: ${cell(p).words}`"
              :data-test="`pair-${r}-${p.sprocket}`"
              @click="emit('choose', p)"
            >
              {{ cell(p).text }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="modelled" class="small mt-1">
      mm clear, trims used; ▲ rubs the outer plate, ▼ the inner, by so much. From the end gaps, chain line and cage as
      typed: measure what is not measured.
    </p>
  </div>
</template>
