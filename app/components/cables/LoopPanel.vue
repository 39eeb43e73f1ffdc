<!-- A loop that must serve several poses: measured with a tape, the length found, and what it does in each. -->
<script setup lang="ts">
import { EXIT_WORDS, EXITS, LOOP_END_WORDS, LOOP_ENDS, SIDES } from '#core/cable/barLoop'
import { POSE_WORDS, type LoopJudged, type PoseName } from '#core/cable/loop'

export type LoopKind = 'bars' | 'suspension'
const typed = defineModel<Record<string, string | boolean>>({ required: true })
defineProps<{
  kind: LoopKind
  judged: LoopJudged | null
  lengthMm: number | null
  trouble: string
  busy: boolean
  given: string
  pieces: readonly string[]
}>()
const emit = defineEmits<{
  kind: [kind: LoopKind]
  turn: [pose: PoseName]
  take: [piece: string]
  length: [text: string]
}>()
const KINDS: readonly { value: LoopKind; words: string }[] = [
  { value: 'bars', words: 'At the bars' },
  { value: 'suspension', words: 'At the suspension' },
]
const FIELDS: Record<LoopKind, readonly (readonly [string, string])[]> = {
  bars: [
    ['sideMm', 'Lever’s exit, to the side'],
    ['forwardMm', 'before the axis'],
    ['aboveMm', 'above it'],
    ['stopBehindMm', 'Stop, behind the axis'],
    ['stopBelowMm', 'below'],
    ['stopSideMm', 'to the side'],
    ['headDeg', 'Head angle, °'],
    ['lockDeg', 'Steers each way, °'],
  ],
  suspension: [
    ['frameForwardMm', 'Frame’s stop, before the pivot'],
    ['frameAboveMm', 'above it'],
    ['frameWayDeg', 'leaves it, ° below level'],
    ['armBehindMm', 'Arm’s stop, behind the pivot'],
    ['armAboveMm', 'above it'],
    ['axleMm', 'Pivot to axle'],
    ['travelMm', 'Travel at the axle'],
    ['sagPercent', 'Sag, %'],
    ['secondTurnsDeg', 'A link turns besides, ° (0: none)'],
    ['secondBehindMm', 'its pivot, behind the first'],
    ['secondAboveMm', 'above it'],
  ],
}
const LEVERS = SIDES.map(value => ({ value, words: `Lever on the ${value}` }))
const ENDS = LOOP_ENDS.map(value => ({ value, words: `Ends at ${LOOP_END_WORDS[value]}` }))
const NOTES: Record<string, string> = {
  frame: 'The lever turns, the stop stays: room for both locks.',
  headset: 'Down the steerer: fifty steering cycles before it is set.',
  fork: 'A front brake’s run turns with the bars: no room for steering is wanted.',
}
const set = (key: string, value: string | boolean) => {
  typed.value = { ...typed.value, [key]: value }
}
</script>

<template>
  <div class="grid gap-3">
    <ChoiceRow
      :model-value="kind"
      label="Which loop"
      :choices="KINDS"
      test="loop"
      @update:model-value="k => k && emit('kind', k)"
    />
    <template v-if="kind === 'bars'">
      <ChoiceRow
        :model-value="(typed.leverSide as (typeof SIDES)[number]) || null"
        label="Lever on which side"
        :choices="LEVERS"
        test="lever"
        @update:model-value="s => s && set('leverSide', s)"
      />
      <ChoiceRow
        :model-value="typed.end as (typeof LOOP_ENDS)[number]"
        label="The loop ends at"
        :choices="ENDS"
        :columns="1"
        :centred="false"
        test="end"
        @update:model-value="e => e && set('end', e)"
      />
    </template>
    <p class="text-2xl leading-tight font-bold" data-test="loop-length">
      {{ lengthMm === null ? (busy ? 'Working it out' : 'No such loop') : `${lengthMm} mm of housing` }}
    </p>
    <p v-if="trouble" class="stopped" role="alert" data-test="loop-trouble">{{ trouble }}</p>
    <ul v-if="judged" class="border-t border-rule">
      <li v-for="j in judged" :key="j.pose" class="border-b border-rule">
        <button
          type="button"
          class="grid min-h-11 w-full grid-cols-[1fr_auto] items-center gap-3 text-left"
          :data-test="`pose-${j.pose}`"
          @click="emit('turn', j.pose)"
        >
          <span>{{ POSE_WORDS[j.pose] }}</span
          ><span class="figure" :class="j.reaches && j.bendsWell ? 'text-clean' : 'text-stop'">{{
            j.reaches ? `${Math.round(j.slackMm)} over, bends to ${Math.round(j.minRadiusMm)}` : 'pulls'
          }}</span>
        </button>
      </li>
    </ul>
    <label class="label"
      >Another length, mm<input
        class="field figure"
        inputmode="numeric"
        autocomplete="off"
        :value="given"
        data-test="loop-given"
        @input="emit('length', ($event.target as HTMLInputElement).value)"
    /></label>
    <div v-if="lengthMm !== null && pieces.length" class="flex flex-wrap gap-1">
      <button
        v-for="p in pieces"
        :key="p"
        type="button"
        class="also min-h-11!"
        :data-test="`take-${p}`"
        @click="emit('take', p)"
      >
        It is the {{ p }}
      </button>
    </div>
    <details class="border-t border-rule pt-1">
      <summary class="min-h-11 cursor-pointer py-2 font-semibold" data-test="tape">
        With a tape, mm from the {{ kind === 'bars' ? 'top of the head tube' : 'pivot' }}
      </summary>
      <div class="grid grid-cols-2 gap-2">
        <TextField
          v-for="[key, words] in FIELDS[kind]"
          :key="key"
          :model-value="String(typed[key])"
          :label="words"
          mono
          inputmode="decimal"
          @update:model-value="set(key, $event)"
        />
        <label v-if="kind === 'bars'" class="label"
          >Housing leaves<select
            class="field"
            :value="typed.exit"
            @change="set('exit', ($event.target as HTMLSelectElement).value)"
          >
            <option v-for="e in EXITS" :key="e" :value="e">{{ EXIT_WORDS[e] }}</option>
          </select></label
        >
        <label v-if="kind === 'bars'" class="label"
          >Stop is on<select
            class="field"
            :value="String(typed.crosses)"
            @change="set('crosses', ($event.target as HTMLSelectElement).value === 'true')"
          >
            <option value="false">the lever’s side</option>
            <option value="true">the other side</option>
          </select></label
        >
      </div>
    </details>
    <p class="small">
      {{
        kind === 'bars'
          ? NOTES[String(typed.end)]
          : 'Only this piece: add what lies before and after it to a whole length. Try it with the air out, slowly, at full travel.'
      }}
      Computed as the curve of least bending; the bike has the last word.
    </p>
  </div>
</template>
