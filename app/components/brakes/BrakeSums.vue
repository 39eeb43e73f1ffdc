<!-- The sums of a brake: let-out to pad gap and bite for arms on a rim, straddle, wear of a disc. Each figure typed,
     each refused in words. -->
<script setup lang="ts">
import { cableTakenMm, discFigures, gainAtPad, HAND_N, padForceN } from '#core/brake/sums'
import type { BrakeSumsOf } from '~/composables/brakeSums'

const props = defineProps<{ sums: BrakeSumsOf }>()
const { typed, share, kind, rim, gap, disc, discBite, straddled } = props.sums
const { standards } = storeToRefs(useLedger())
const say = (b: number) => (b >= 1 ? 'the bar first' : `${Math.round(b * 100)} %`)
const force = computed(() => padForceN(rim.value!.lever, rim.value!.kind, HAND_N, standards.value)!)
const wantedMm = computed(() => discFigures(standards.value).gapMm)
</script>

<template>
  <div class="grid gap-3">
    <template v-if="rim && gap">
      <div class="grid grid-cols-2 gap-2">
        <TextField
          v-model="typed.letOut"
          label="Cable let out, mm"
          mono
          inputmode="decimal"
          :error="gap.trouble"
        /><TextField v-model="typed.wound" label="Barrel wound in, turns" mono inputmode="decimal" /><TextField
          v-model="typed.worn"
          label="Pads worn by, mm"
          mono
          inputmode="decimal"
        />
      </div>
      <template v-if="gap.value">
        <p class="-mb-1 small">Let out, or wound in, once the pads touch the rim:</p>
        <p class="text-2xl leading-tight font-bold" data-test="pad-gap">
          {{ gap.value.gapMm.toFixed(1) }} mm at each pad
        </p>
      </template>
      <DrawLever v-model="share" />
      <dl class="grid grid-cols-[auto_1fr] gap-x-4 border-t border-rule pt-2">
        <dt class="text-soft">Gain, hand to one pad</dt>
        <dd class="figure text-right" data-test="gain">{{ gainAtPad(rim.lever, rim.kind, standards)!.toFixed(1) }}</dd>
        <dt class="text-soft">{{ HAND_N }} N of hand presses a pad with</dt>
        <dd class="figure text-right" data-test="pad-force">{{ Math.round(force / 10) * 10 }} N</dd>
        <template v-if="gap.value"
          ><dt class="text-soft">Bites now, of the stroke</dt>
          <dd class="figure text-right" data-test="bite">{{ say(gap.value.bite) }}</dd>
          <dt class="text-soft">Bites when worn</dt>
          <dd class="figure text-right" data-test="bite-worn">{{ say(gap.value.wornBite) }}</dd></template
        >
        <dt class="text-soft">Cable for 1 mm of wear</dt>
        <dd class="figure text-right">{{ cableTakenMm(rim.kind, 1, standards).toFixed(1) }} mm</dd>
      </dl>
      <p class="small">
        Pull over the stroke, gain and arm ratio are from memory unless measured here: the bike has the last word.
      </p>
    </template>
    <section v-if="straddled" class="grid gap-2 border-t border-rule pt-2" aria-label="Straddle">
      <div class="grid grid-cols-3 gap-2">
        <TextField v-model="typed.yoke" label="Yoke height" mono inputmode="decimal" /><TextField
          v-model="typed.apart"
          label="Anchors apart"
          mono
          inputmode="decimal"
        /><TextField v-model="typed.overTyre" label="Yoke over tyre" mono inputmode="decimal" />
      </div>
      <p v-if="straddled.trouble" class="wrong" role="alert" data-test="straddle-trouble">{{ straddled.trouble }}</p>
      <p v-else-if="straddled.value" class="font-semibold" data-test="straddle">{{ straddled.value.words }}</p>
      <p class="border-l-[6px] border-stop pl-2 text-sm font-semibold">
        A catch under the straddle, so that a broken cable cannot drop it onto the tyre.
      </p>
    </section>
    <template v-if="kind === 'cable-disc'">
      <div class="grid grid-cols-3 gap-2">
        <TextField v-model="typed.rotor" label="Rotor, mm" mono inputmode="decimal" /><TextField
          v-model="typed.pad"
          label="Pad, mm"
          mono
          inputmode="decimal"
        /><TextField v-model="typed.sideGap" label="Gap a side" mono inputmode="decimal" />
      </div>
      <p v-if="disc?.trouble" class="wrong" role="alert" data-test="disc-trouble">{{ disc.trouble }}</p>
      <p v-else-if="disc?.value" class="font-semibold" data-test="disc-wear">{{ disc.value.words }}</p>
      <template v-if="discBite !== null">
        <DrawLever v-model="share" />
        <p>
          Bites at <b class="figure" data-test="disc-bite">{{ say(discBite) }}</b> of the stroke, by our model’s arm.
        </p>
      </template>
      <p v-else class="text-soft">Say which lever it has, and the pads move with it.</p>
      <p class="small">
        {{ wantedMm.from }} to {{ wantedMm.to }} mm a side; pads without their plate. Wear is taken up at the pads,
        never by preloading the arm. No oil near the rotor.
      </p>
    </template>
    <p v-if="kind === 'coaster' || kind === 'drum' || kind === 'roller'" class="text-soft">
      {{
        kind === 'coaster'
          ? 'No cable: strap fast, wheel free, at most 60° of free back-pedal.'
          : 'Free wheel, bite by a third of the stroke, reaction arm fast before any test.'
      }}
    </p>
    <p v-else-if="!rim && kind !== 'cable-disc'" class="text-soft">Say which lever it has.</p>
  </div>
</template>
