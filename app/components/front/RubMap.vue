<!-- Every pair: clear by how many mm on which plate, with the click that serves it best. -->
<script setup lang="ts">
import type { Pair } from '#core/front/rub'

defineProps<{
  map: readonly (readonly Pair[])[]
  rings: readonly number[]
  teeth: readonly number[]
  chosen: Pair | null
}>()
const emit = defineEmits<{ choose: [pair: Pair] }>()
const say = (p: Pair) =>
  `${p.clearMm.toFixed(1)} mm ${p.rubs ? `short on the ${p.rubs} plate` : `clear on the ${p.innerMm < p.outerMm ? 'inner' : 'outer'} plate`}, ${p.click}`
</script>

<template>
  <div class="overflow-x-auto" data-test="rub-map">
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
              :class="[
                p.rubs ? 'border-stop font-bold text-stop' : p.near ? 'border-ink' : 'border-rule text-clean',
                chosen?.ring === p.ring && chosen?.sprocket === p.sprocket ? 'bg-panel' : '',
              ]"
              :aria-pressed="chosen?.ring === p.ring && chosen?.sprocket === p.sprocket"
              :aria-label="`${rings[r]} with ${teeth[p.sprocket]}: ${say(p)}`"
              :data-test="`pair-${r}-${p.sprocket}`"
              @click="emit('choose', p)"
            >
              {{ p.rubs ? (p.rubs === 'inner' ? '▼' : '▲') : '' }}{{ Math.abs(p.clearMm).toFixed(1) }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p class="small mt-1">
      mm clear, trims used; ▲ rubs the outer plate, ▼ the inner, by so much. From the end gaps, chain line and cage as
      typed: measure what is not measured.
    </p>
  </div>
</template>
