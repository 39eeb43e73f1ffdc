<!-- Setting a hub: the figure that is read, the turns that follow from it, and the steps of its way. -->
<script setup lang="ts">
import { FIGURE_STEP, type HubParts } from '#core/hub/kinds'
import type { HubState } from '#core/hub/state'
import { HUB_KIT, hubSteps } from '#core/hub/steps'
import type { ToGo } from '#core/hub/toGo'
import { hubAmountWords, hubTurnWords } from '#core/hub/words'

const props = defineProps<{ parts: HubParts; hub: HubState; next: string | null; toGo: ToGo | null }>()
const emit = defineEmits<{ read: [mm: number]; turned: [sixteenths: number]; step: [id: string] }>()
const AMOUNTS = [4, 8, 16, 32]
const steps = computed(() => hubSteps(props.parts.way))
/** The step that is done by its figure: a touch leads to where it is typed. */
const figureStep = computed(() => FIGURE_STEP[props.parts.way])
const toFigure = () => document.querySelector<HTMLElement>('[data-test=figure-typed]')?.focus()
</script>

<template>
  <div class="grid gap-3">
    <LazyHubReading :parts="parts" @read="emit('read', $event)" />
    <div class="grid gap-1">
      <button v-if="toGo" type="button" class="act" data-test="to-go" @click="emit('turned', toGo.sixteenths)">
        Turned {{ parts.way === 'twin' ? 'both barrels ' : '' }}{{ hubTurnWords(toGo.sixteenths) }}
      </button>
      <div v-for="w in [1, -1] as const" :key="w" class="grid grid-cols-[4.5rem_1fr] items-center gap-1">
        <p class="text-sm font-bold" :class="w > 0 ? 'text-out' : 'text-in'">{{ w > 0 ? 'Tighter' : 'Slacker' }}</p>
        <div class="grid grid-cols-4 gap-1">
          <button
            v-for="a in AMOUNTS"
            :key="a"
            type="button"
            class="also figure min-h-11! justify-center px-0!"
            :data-test="`hub-turn-${w * a}`"
            @click="emit('turned', w * a)"
          >
            {{ hubAmountWords(a) }}
          </button>
        </div>
      </div>
    </div>
    <p v-if="!hub.steps.length" class="small" data-test="kit">Lay ready: {{ HUB_KIT[parts.way] }}.</p>
    <ol class="grid border-t border-rule">
      <li v-for="s in steps" :key="s.id" class="border-b border-rule">
        <button
          type="button"
          class="grid min-h-12 w-full content-center gap-0.5 py-1 text-left"
          :data-test="`hub-step-${s.id}`"
          @click="s.id === figureStep ? toFigure() : emit('step', s.id)"
        >
          <span :class="hub.steps.includes(s.id) ? 'text-soft' : 'font-bold'"
            >{{ hub.steps.includes(s.id) ? '✓ ' : '' }}{{ s.what }}</span
          ><span v-if="s.id === next" class="text-[0.9375rem] leading-snug"
            >{{ s.how }}{{ s.id === figureStep ? ' What you read, typed above, does this step.' : '' }}</span
          ><span v-if="s.caution && s.id === next" class="text-sm font-semibold text-stop">{{ s.caution }}</span>
        </button>
      </li>
    </ol>
  </div>
</template>
