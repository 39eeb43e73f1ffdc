<!-- A brake's proof: each test passed or failed by whoever stands at the bench, or all at once; what failed is put
     right first. -->
<script setup lang="ts">
import { curesOf } from '#core/brake/faults'
import { PROOF_WORDS, testsOf, type ProofTest } from '#core/brake/proof'
import type { BrakeState } from '#core/brake/state'
import { capital } from '#core/quantity/words'

const props = defineProps<{ state: BrakeState; brakeWords: string; people: Readonly<Record<string, string>> }>()
const emit = defineEmits<{ prove: [holds: boolean, test?: ProofTest]; cured: [fault: string] }>()
const tests = computed(() => testsOf(props.state.parts?.kind))
const cures = computed(() => curesOf(props.state.parts?.kind))
</script>

<template>
  <section v-if="tests.length" class="grid gap-1.5 sm:max-w-lg" aria-label="Proof">
    <div v-if="state.failed" class="grid gap-1 border-l-[10px] border-stop pl-3" data-test="what-put-right">
      <p class="font-bold text-stop">
        Failed{{ state.failed.test ? ` its ${PROOF_WORDS[state.failed.test].name}` : '' }},
        {{ people[state.failed.by] ?? '' }}. What was put right?
      </p>
      <div class="grid gap-1 sm:grid-cols-2">
        <button
          v-for="c in cures"
          :key="c.id"
          type="button"
          class="also min-h-11! px-3! text-[0.9375rem] leading-tight"
          :data-test="`put-right-${c.id}`"
          @click="emit('cured', c.id)"
        >
          {{ c.words }}
        </button>
      </div>
    </div>
    <div
      v-for="t in tests"
      :key="t"
      class="grid grid-cols-[1fr_auto_auto] items-center gap-2 border-b border-rule pb-1.5"
    >
      <p class="leading-tight">
        <b>{{ capital(PROOF_WORDS[t].name) }}</b>{{ ' '
        }}<span
          v-if="state.marks[t]"
          class="font-semibold"
          :class="state.marks[t]!.holds ? 'text-clean' : 'text-stop'"
          :data-test="`mark-${t}`"
          >{{ state.marks[t]!.holds ? 'passed' : 'failed' }}, {{ people[state.marks[t]!.by] ?? '' }}</span
        ><span class="small block">{{ PROOF_WORDS[t].how }}</span>
      </p>
      <button
        type="button"
        class="also min-h-11! border-clean! px-3! text-clean!"
        :aria-label="`${PROOF_WORDS[t].name} passed`"
        :data-test="`prove-${t}`"
        @click="emit('prove', true, t)"
      >
        Passes
      </button>
      <button
        type="button"
        class="also min-h-11! border-stop! px-3! text-stop!"
        :aria-label="`${PROOF_WORDS[t].name} failed`"
        :data-test="`fail-${t}`"
        @click="emit('prove', false, t)"
      >
        Fails
      </button>
    </div>
    <button
      type="button"
      class="also min-h-12! border-clean! text-clean!"
      data-test="prove-holds"
      @click="emit('prove', true)"
    >
      {{ brakeWords }} holds in all {{ tests.length }}
    </button>
  </section>
</template>
