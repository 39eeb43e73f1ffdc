<!-- A brake's proof: squeeze, roll and ride, each passed or failed by whoever stands at the bench; or all three at once. -->
<script setup lang="ts">
import { PROOF_TESTS, PROOF_WORDS, type ProofMarks, type ProofTest } from '#core/brake/proof'

defineProps<{ marks: ProofMarks; brakeWords: string; people: Readonly<Record<string, string>> }>()
const emit = defineEmits<{ prove: [holds: boolean, test?: ProofTest] }>()
</script>

<template>
  <section class="grid gap-1.5 sm:max-w-lg" aria-label="Proof">
    <div
      v-for="t in PROOF_TESTS"
      :key="t"
      class="grid grid-cols-[1fr_auto_auto] items-center gap-2 border-b border-rule pb-1.5"
    >
      <p class="leading-tight">
        <b class="inline-block first-letter:uppercase">{{ PROOF_WORDS[t].name }}</b>
        <span
          v-if="marks[t]"
          class="font-semibold"
          :class="marks[t]!.holds ? 'text-clean' : 'text-stop'"
          :data-test="`mark-${t}`"
          >{{ marks[t]!.holds ? 'passed' : 'failed' }}, {{ people[marks[t]!.by] ?? '' }}</span
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
      {{ brakeWords }} holds in all three
    </button>
  </section>
</template>
