<!-- What is wrong with the hub's setting: the thing to look at next, its answer one touch or one figure; the move that
     cures it. -->
<script setup lang="ts">
import { hubChecksFor, TICK, type HubCheck } from '#core/hub/checks'
import { A_NUMBER_APART, hubCure, isGearOff, type HubDiagnosis, type HubNext } from '#core/hub/diagnose'
import type { HubParts } from '#core/hub/kinds'
import type { HubState } from '#core/hub/state'
import type { Standards } from '#core/standards/inForce'
import { toSixteenths } from '#core/quantity/turns'
import { adjusterOf, hubTurnWords, READING_WORDS, saySoundedTick, sayTarget } from '#core/hub/words'

const props = defineProps<{
  diagnosis: HubDiagnosis
  parts: HubParts
  standards: Standards
  hub: HubState
  /** This question was there to be read. */
  live: boolean
}>()
const emit = defineEmits<{
  saw: [check: string, outcome: string]
  read: [mm: number]
  count: [gear: number, crankTurns: number, wheelTurns: number | null, neutral?: boolean]
  turned: [sixteenths: number]
  cured: [fault: string]
  sounded: [tickOdds: number]
}>()
/** Another thing than the one advised, chosen by hand. */
const own = shallowRef<HubNext | null>(null)
watchContents(
  () => props.hub,
  () => {
    own.value = null
    listens.value = false
  },
)
/** The microphone is asked besides. */
const listens = ref(false)
const found = computed(() => (own.value ? null : props.diagnosis.found))
const next = computed(() => own.value ?? (found.value ? null : props.diagnosis.next))
const cure = computed(() => hubCure(props.diagnosis))
const sixteenths = computed(() => toSixteenths(props.diagnosis.turns))
const others = computed<HubCheck[]>(() =>
  hubChecksFor(props.parts.way).filter(c => !(next.value?.do === 'look' && next.value.check.id === c.id)),
)
</script>

<template>
  <div class="grid gap-2">
    <section aria-live="polite" class="grid gap-2">
      <template v-if="found">
        <p
          class="text-2xl leading-tight font-bold"
          :class="{ 'text-clean': found.id === 'none' }"
          data-test="hub-found"
        >
          {{ found.words }}
        </p>
        <p v-if="found.id !== 'none' && sixteenths !== 0" class="flex flex-wrap items-baseline gap-x-2 text-lg">
          <b data-test="hub-move">{{ adjusterOf(parts) }} {{ hubTurnWords(sixteenths) }}</b
          ><span class="small"
            >{{ Math.abs(diagnosis.offClicks).toFixed(1) }} of a gear
            {{ diagnosis.offClicks > 0 ? 'slack' : 'tight' }}</span
          >
        </p>
        <p class="leading-snug" data-test="hub-cure">
          {{ found.cure }}{{ isGearOff(diagnosis) ? ` ${A_NUMBER_APART}` : '' }}
        </p>
        <p v-if="found.caution" class="border-l-[6px] border-stop pl-2 text-sm font-semibold">{{ found.caution }}</p>
        <template v-if="found.id !== 'none'">
          <button
            v-if="cure?.do === 'turn'"
            type="button"
            class="act"
            data-test="hub-turned"
            @click="emit('turned', cure.sixteenths)"
          >
            Turned {{ hubTurnWords(cure.sixteenths) }} <kbd class="key">Enter</kbd>
          </button>
          <button v-else type="button" class="act" data-test="hub-cured" @click="emit('cured', found.id)">
            Put right <kbd class="key">Enter</kbd>
          </button>
        </template>
      </template>
      <template v-else-if="next?.do === 'look'">
        <p class="text-2xl leading-tight font-bold" data-test="hub-check">{{ next.check.ask }}</p>
        <SawKeys
          :outcomes="next.check.outcomes"
          :live="live"
          test="hub-saw"
          @saw="emit('saw', next.check.id, $event)"
        />
        <template v-if="next.check.id === TICK">
          <p v-if="typeof hub.tickOdds === 'number'" class="small" data-test="tick-noted">
            Noted of the microphone: {{ saySoundedTick(hub.tickOdds) }}.
          </p>
          <LazyHubListen v-if="listens" @noted="emit('sounded', $event)" />
          <button
            v-else
            type="button"
            class="quiet justify-self-start"
            data-test="tick-listens"
            @click="listens = true"
          >
            Let the tablet listen
          </button>
        </template>
      </template>
      <template v-else-if="next?.do === 'read'">
        <p class="text-2xl leading-tight font-bold" data-test="hub-check">Look: {{ sayTarget(parts, standards) }}?</p>
        <HubReading :parts="parts" @read="emit('read', $event)" />
      </template>
      <template v-else-if="next?.do === 'count'">
        <p class="text-2xl leading-tight font-bold" data-test="hub-check">Gear {{ next.gear }}: count the wheel</p>
        <LazyHubCountPad
          :key="next.gear"
          :parts="parts"
          :gear="next.gear"
          :live="live"
          @count="(...told) => emit('count', ...told)"
        />
      </template>
      <p v-else class="text-xl font-bold" data-test="hub-found">
        Nothing more to look at here: who is trained for this hub decides.
      </p>
    </section>
    <ChanceBars :faults="diagnosis.faults" test="hub-fault" />
    <details class="border-t border-rule pt-1">
      <summary class="min-h-11 cursor-pointer py-2 font-semibold" data-test="hub-others">
        Look at something else
      </summary>
      <div class="grid gap-1">
        <button
          type="button"
          class="also min-h-11! text-left text-[0.9375rem]"
          data-test="hub-look-read"
          @click="own = { do: 'read' }"
        >
          {{ READING_WORDS[parts.way] }}</button
        ><button
          v-for="c in others"
          :key="c.id"
          type="button"
          class="also min-h-11! text-left text-[0.9375rem]"
          :data-test="`hub-look-${c.id}`"
          @click="own = { do: 'look', check: c }"
        >
          {{ c.ask }}
        </button>
      </div>
    </details>
  </div>
</template>
