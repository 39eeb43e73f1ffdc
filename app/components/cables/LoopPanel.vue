<!-- The loop at the bars: measured with a tape, the length found, and what it does at both locks. -->
<script setup lang="ts">
import { EXIT_WORDS, EXITS, type BarLoop } from '#core/cable/barLoop'
import type { LoopJudged } from '#core/cable/loop'

const bars = defineModel<Record<keyof BarLoop, string | boolean>>({ required: true })
defineProps<{ judged: LoopJudged | null; lengthMm: number | null; trouble: string; busy: boolean; given: string; pieces: readonly string[] }>()
const emit = defineEmits<{ turn: [deg: number]; take: [piece: string]; length: [text: string] }>()
const FIELDS = [['sideMm', 'Lever’s exit, to the side'], ['forwardMm', 'before the axis'], ['aboveMm', 'above it'], ['stopBehindMm', 'Stop, behind the axis'], ['stopBelowMm', 'below'], ['stopSideMm', 'to the side'], ['headDeg', 'Head angle, °'], ['lockDeg', 'Steers each way, °']] as const
const set = (key: keyof BarLoop, value: string | boolean) => { bars.value = { ...bars.value, [key]: value } }
const WORDS = { straight: 'straight ahead', left: 'full left', right: 'full right' } as const
</script>

<template>
  <div class="grid gap-3">
    <p class="text-2xl leading-tight font-bold" data-test="loop-length">{{ lengthMm === null ? (busy ? 'Working it out' : 'No such loop') : `${lengthMm} mm of housing` }}</p>
    <p v-if="trouble" class="stopped" role="alert" data-test="loop-trouble">{{ trouble }}</p>
    <ul v-if="judged" class="border-t border-rule">
      <li v-for="j in judged" :key="j.steered" class="border-b border-rule"><button type="button" class="grid min-h-11 w-full grid-cols-[1fr_auto] items-center gap-3 text-left" :data-test="`steer-${j.steered}`" @click="emit('turn', j.steered === 'straight' ? 0 : j.steered === 'left' ? 1 : -1)"><span>{{ WORDS[j.steered] }}</span><span class="figure" :class="j.reaches && j.bendsWell ? 'text-clean' : 'text-stop'">{{ j.reaches ? `${Math.round(j.slackMm)} over, bends to ${Math.round(j.minRadiusMm)}` : 'pulls' }}</span></button></li>
    </ul>
    <label class="label">Another length, mm<input class="field figure" inputmode="numeric" autocomplete="off" :value="given" data-test="loop-given" @input="emit('length', ($event.target as HTMLInputElement).value)"></label>
    <div v-if="lengthMm !== null && pieces.length" class="flex flex-wrap gap-1"><button v-for="p in pieces" :key="p" type="button" class="also min-h-11!" :data-test="`take-${p}`" @click="emit('take', p)">It is the {{ p }}</button></div>
    <details class="border-t border-rule pt-1"><summary class="min-h-11 cursor-pointer py-2 font-semibold" data-test="tape">With a tape, mm from the top of the head tube</summary>
      <div class="grid grid-cols-2 gap-2">
        <TextField v-for="[key, words] in FIELDS" :key="key" :model-value="String(bars[key])" :label="words" mono inputmode="decimal" @update:model-value="set(key, $event)" />
        <label class="label">Housing leaves<select class="field" :value="bars.exit" @change="set('exit', ($event.target as HTMLSelectElement).value)"><option v-for="e in EXITS" :key="e" :value="e">{{ EXIT_WORDS[e] }}</option></select></label>
        <label class="label">Stop is on<select class="field" :value="String(bars.crosses)" @change="set('crosses', ($event.target as HTMLSelectElement).value === 'true')"><option value="false">the lever’s side</option><option value="true">the other side</option></select></label>
      </div>
    </details>
    <p class="small">The front brake’s run turns with the bars and needs no room for steering: type 0 for it. Suspension: with the air out, at full travel. Computed as the curve of least bending; the bike has the last word.</p>
  </div>
</template>
