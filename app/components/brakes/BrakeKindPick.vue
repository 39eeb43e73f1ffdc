<!-- What is on the bike: kind of brake, class of lever, side of the front lever; never assumed. -->
<script setup lang="ts">
import type { BrakeLeft } from '#core/ledger/sheet'
import { sayTurns } from '#core/quantity/turns'
import {
  BRAKE_KIND_WORDS,
  BRAKE_KINDS,
  LEVER_WORDS,
  LEVERS,
  type Brake,
  type BrakeKind,
  type BrakeParts,
  type LeverClass,
} from '#core/brake/kinds'

const props = defineProps<{ brake: Brake; parts: BrakeParts | null; last: BrakeLeft | null }>()
const emit = defineEmits<{ keep: [parts: BrakeParts] }>()
const keep = (change: Partial<BrakeParts>) =>
  emit('keep', { brake: props.brake, kind: 'linear-pull', lever: null, leverSide: null, ...props.parts, ...change })
const kind = (k: BrakeKind) => keep({ kind: k, ...(k === 'coaster' ? { lever: null, leverSide: null } : {}) })
const lever = (l: LeverClass) => keep({ lever: l })
</script>

<template>
  <div class="grid gap-2">
    <p class="text-2xl leading-tight font-bold">What brake is it?</p>
    <button
      v-if="last && !parts"
      type="button"
      class="also leading-tight"
      data-test="brake-last"
      @click="emit('keep', last.parts)"
    >
      As it left last time: {{ BRAKE_KIND_WORDS[last.parts.kind].toLowerCase()
      }}{{ last.barrelSixteenthsOut === null ? '' : `, barrel ${sayTurns(last.barrelSixteenthsOut / 16)} out` }}
    </button>
    <div class="grid gap-1">
      <button
        v-for="k in BRAKE_KINDS"
        :key="k"
        type="button"
        class="also"
        :class="{ 'bg-act! text-act-ink!': parts?.kind === k }"
        :aria-pressed="parts?.kind === k"
        :data-test="`kind-${k}`"
        @click="kind(k)"
      >
        {{ BRAKE_KIND_WORDS[k] }}
      </button>
    </div>
    <template v-if="parts && parts.kind !== 'coaster'">
      <p class="label mb-0!">Lever</p>
      <div class="grid grid-cols-2 gap-1">
        <button
          v-for="l in LEVERS"
          :key="l"
          type="button"
          class="also min-h-11! justify-center"
          :class="{ 'bg-act! text-act-ink!': parts.lever === l }"
          :aria-pressed="parts.lever === l"
          :data-test="`lever-${l}`"
          @click="lever(l)"
        >
          {{ LEVER_WORDS[l] }}
        </button>
      </div>
      <p class="label mb-0!">Its lever is on the</p>
      <div class="grid grid-cols-2 gap-1">
        <button
          v-for="s in ['left', 'right'] as const"
          :key="s"
          type="button"
          class="also min-h-11! justify-center"
          :class="{ 'bg-act! text-act-ink!': parts.leverSide === s }"
          :aria-pressed="parts.leverSide === s"
          :data-test="`side-${s}`"
          @click="keep({ leverSide: s })"
        >
          {{ s }}
        </button>
      </div>
      <p class="small">
        Which lever works the front brake follows the country’s custom and the rider: noted, never changed unasked.
      </p>
    </template>
  </div>
</template>
