<!-- What the bends cost, what could be gained, and what the shifting says of the same run. -->
<script setup lang="ts">
import { AGAINST_HEARD_WORDS, againstHeard, backlashOfRun, remedies, windowTurnsWith } from '#core/cable/backlash'
import { isBrake, leastRadiusMm } from '#core/cable/housing'
import type { Run } from '#core/cable/run'
import { pullAtClamp } from '#core/cable/friction'
import { givesOf, type FarEnd } from '#core/cable/wire'
import { FIRM_PULL_N, runGivesMm, SPRING_PULL_N, wireGivesMm } from '#core/cable/stretch'
import { sayTurns, toEighth } from '#core/quantity/turns'
import type { RearSetup } from '#core/response/setup'
import { adviceQuestion } from '~/workers/question'
import { useAdvice, type Question } from '~/workers/useAdvice'

const props = defineProps<{
  run: Run
  at: FarEnd
  setup: RearSetup | null
  ratio: number | null
}>()
const { state, record } = storeToRefs(useLedger())
const session = useSession()
// what the shifting says, from the same belief as the rear bench
const question = computed<Question | null>(() => {
  const heardAny = state.value.rear.bench.some(e => e.kind === 'shift' || e.kind === 'edge')
  return record.value && props.run.run === 'rear' && heardAny
    ? adviceQuestion(state.value, record.value, session.now)
    : null
})
const { picture: advice, stale } = useAdvice(question)
const heard = computed(() => (question.value && !stale.value ? (advice.value?.backlashMm ?? null) : null))
const shift = computed(() => !isBrake(props.run.run))
const rear = computed(() => props.run.run === 'rear' && props.setup !== null && props.ratio !== null)
const now = computed(() => (props.ratio === null ? null : backlashOfRun(props.run, props.ratio)))
const window = (mm: number) => (rear.value ? windowTurnsWith(props.setup!, props.ratio!, mm) : null)
const gains = computed(() =>
  remedies(props.run, leastRadiusMm(props.run.run))
    .map(r => ({
      what: r.what,
      mm: props.ratio === null ? null : backlashOfRun(r.run, props.ratio),
      pull: pullAtClamp(r.run),
    }))
    .sort((a, b) => b.pull - a.pull),
)
const wire = computed(() => (shift.value ? 'shift' : 'brake') as 'shift' | 'brake')
/** The whole inner, lever and end with it, and how much of it lies in housing. */
const gives = computed(() => givesOf(props.run, props.at))
const pullN = computed(() => FIRM_PULL_N[wire.value])
const sayWindow = (turns: number | null) =>
  turns === null ? '' : turns < 1 / 16 ? 'no clean window' : `clean over ${sayTurns(toEighth(turns))} turn`
const differs = computed(() => {
  if (!rear.value || !heard.value || now.value === null) return null
  return AGAINST_HEARD_WORDS[againstHeard(now.value, heard.value)]
})
</script>

<template>
  <div class="grid gap-3">
    <p class="text-2xl leading-tight font-bold">
      <span class="figure">{{ Math.round(100 * pullAtClamp(run)) }} %</span> of the pull arrives
    </p>
    <template v-if="rear && now !== null">
      <p data-test="backlash">
        Backlash at the pulley from these bends: <b class="figure">{{ now.toFixed(2) }} mm</b>,
        {{ sayWindow(window(now)) }}.
      </p>
      <p v-if="heard" data-test="heard-backlash">
        The shifting says <b class="figure">{{ heard.mean.toFixed(2) }} mm</b>{{ ' ' }}
        <span class="figure small">({{ heard.low.toFixed(2) }} to {{ heard.high.toFixed(2) }})</span>. {{ differs }}
      </p>
      <p v-else class="text-soft">Nothing has been heard on this bike yet to compare it with.</p>
    </template>
    <template v-if="gains.length">
      <h2 class="border-t border-rule pt-2 font-bold">What would be gained</h2>
      <ul class="-mt-2">
        <li v-for="g in gains" :key="g.what" class="border-b border-rule py-1.5">
          <b>{{ g.what }}</b
          ><span class="figure block"
            >{{ Math.round(100 * g.pull) }} % of the pull{{
              rear && g.mm !== null && now !== null
                ? `, backlash ${(now - g.mm).toFixed(2)} mm less, ${sayWindow(window(g.mm))}`
                : ''
            }}</span
          >
        </li>
      </ul>
    </template>
    <h2 class="border-t border-rule pt-2 font-bold">Stretch</h2>
    <p class="-mt-2">
      Over {{ Math.round(gives.wireMm) }} mm and {{ pullN }} N the wire gives
      <b class="figure">{{ wireGivesMm(gives.wireMm, wire, pullN).toFixed(1) }} mm</b>, with
      {{ Math.round(gives.housingMm) }} mm of housing and its stops
      <b class="figure">{{ runGivesMm(gives, wire, pullN).toFixed(1) }} mm</b> at the lever.<template
        v-if="!shift && gives.wireMm > 2500"
      >
        Expect a soft lever; never a joiner in a brake’s inner.</template
      >
    </p>
    <p class="small">
      Capstan equation over the bends; μ from memory; the spring’s pull of {{ SPRING_PULL_N }} N is our model’s.
    </p>
  </div>
</template>
