<!-- The sums of a brake: let-out to pad gap and bite for arms on a rim, straddle, wear of a disc. Each figure typed, each refused in words. -->
<script setup lang="ts">
import type { BrakeKind, LeverClass } from '#core/brake/kinds'
import { cableTakenMm, DISC, gainAtPad, HAND_N, padForceN } from '#core/brake/sums'

defineProps<{
  kind: BrakeKind
  rim: { kind: BrakeKind; lever: LeverClass } | null
  gap: { mm: number | null; trouble: string }
  bite: number
  wornBite: number
  disc: string | null
  discBite: number | null
  discTrouble: string
  straddle: { deg: number; words: string } | null
  straddleTrouble: string
  lever: LeverClass | null
}>()
const letOut = defineModel<string>('letOut', { required: true })
const share = defineModel<number>('share', { required: true })
const wound = defineModel<string>('wound', { required: true })
const worn = defineModel<string>('worn', { required: true })
const rotor = defineModel<string>('rotor', { required: true })
const pad = defineModel<string>('pad', { required: true })
const sideGap = defineModel<string>('sideGap', { required: true })
const yoke = defineModel<string>('yoke', { required: true })
const apart = defineModel<string>('apart', { required: true })
const overTyre = defineModel<string>('overTyre', { required: true })
const say = (b: number) => (b >= 1 ? 'the bar first' : `${Math.round(b * 100)} %`)
</script>

<template>
  <div class="grid gap-3">
    <template v-if="rim">
      <div class="grid grid-cols-2 gap-2">
        <TextField v-model="letOut" label="Cable let out, mm" mono inputmode="decimal" :error="gap.trouble" /><TextField
          v-model="wound"
          label="Barrel wound in, turns"
          mono
          inputmode="decimal"
        /><TextField v-model="worn" label="Pads worn by, mm" mono inputmode="decimal" />
      </div>
      <p v-if="gap.mm !== null" class="-mb-1 small">Let out, or wound in, once the pads touch the rim:</p>
      <p v-if="gap.mm !== null" class="text-2xl leading-tight font-bold" data-test="pad-gap">
        {{ gap.mm.toFixed(1) }} mm at each pad
      </p>
      <label class="label"
        >Draw the lever<input
          v-model.number="share"
          type="range"
          min="0"
          max="1"
          step="0.01"
          class="mt-2 h-11 w-full accent-ink"
          data-test="draw"
      /></label>
      <dl class="grid grid-cols-[auto_1fr] gap-x-4 border-t border-rule pt-2">
        <dt class="text-soft">Gain, hand to one pad</dt>
        <dd class="figure text-right" data-test="gain">{{ gainAtPad(rim.lever, rim.kind)!.toFixed(1) }}</dd>
        <dt class="text-soft">{{ HAND_N }} N of hand presses a pad with</dt>
        <dd class="figure text-right" data-test="pad-force">
          {{ Math.round(padForceN(rim.lever, rim.kind, HAND_N)! / 10) * 10 }} N
        </dd>
        <dt class="text-soft">Bites now, of the stroke</dt>
        <dd class="figure text-right" data-test="bite">{{ say(bite) }}</dd>
        <dt class="text-soft">Bites when worn</dt>
        <dd class="figure text-right" data-test="bite-worn">{{ say(wornBite) }}</dd>
        <dt class="text-soft">Cable for 1 mm of wear</dt>
        <dd class="figure text-right">{{ cableTakenMm(rim.kind, 1).toFixed(1) }} mm</dd>
      </dl>
      <p class="small">Pull over the stroke, gain and arm ratio are from memory: the bike has the last word.</p>
    </template>
    <section v-if="kind === 'cantilever'" class="grid gap-2 border-t border-rule pt-2" aria-label="Straddle">
      <div class="grid grid-cols-3 gap-2">
        <TextField v-model="yoke" label="Yoke height" mono inputmode="decimal" /><TextField
          v-model="apart"
          label="Anchors apart"
          mono
          inputmode="decimal"
        /><TextField v-model="overTyre" label="Yoke over tyre" mono inputmode="decimal" />
      </div>
      <p v-if="straddleTrouble" class="text-sm font-semibold text-stop" role="alert" data-test="straddle-trouble">
        {{ straddleTrouble }}
      </p>
      <p v-else-if="straddle" class="font-semibold" data-test="straddle">{{ straddle.words }}</p>
      <p class="border-l-[6px] border-stop pl-2 text-sm font-semibold">
        A catch under the straddle, so that a broken cable cannot drop it onto the tyre.
      </p>
    </section>
    <template v-if="kind === 'cable-disc'">
      <div class="grid grid-cols-3 gap-2">
        <TextField v-model="rotor" label="Rotor, mm" mono inputmode="decimal" /><TextField
          v-model="pad"
          label="Pad, mm"
          mono
          inputmode="decimal"
        /><TextField v-model="sideGap" label="Gap a side" mono inputmode="decimal" />
      </div>
      <p v-if="discTrouble" class="text-sm font-semibold text-stop" role="alert" data-test="disc-trouble">
        {{ discTrouble }}
      </p>
      <p v-else-if="disc" class="font-semibold" data-test="disc-wear">{{ disc }}</p>
      <template v-if="discBite !== null">
        <label class="label"
          >Draw the lever<input
            v-model.number="share"
            type="range"
            min="0"
            max="1"
            step="0.01"
            class="mt-2 h-11 w-full accent-ink"
            data-test="draw"
        /></label>
        <p>
          Bites at <b class="figure" data-test="disc-bite">{{ say(discBite) }}</b> of the stroke, by our model’s arm.
        </p>
      </template>
      <p v-else class="text-soft">Say which lever it has, and the pads move with it.</p>
      <p class="small">
        {{ DISC.gapMm.from }} to {{ DISC.gapMm.to }} mm a side; pads without their plate. Wear is taken up at the pads,
        never by preloading the arm. No oil near the rotor.
      </p>
    </template>
    <p v-if="kind === 'coaster' || kind === 'drum'" class="text-soft">
      {{
        kind === 'coaster'
          ? 'No cable: strap fast, wheel free, at most 60° of free back-pedal.'
          : 'Free wheel, bite by a third of the stroke, reaction arm fast before any test.'
      }}
    </p>
    <p v-else-if="!rim && kind !== 'cable-disc'" class="text-soft">Say which lever it has.</p>
  </div>
</template>
