<!-- What is seen leads to the cause: the check that splits best, its answers one touch each, what remains with its
     chances. -->
<script setup lang="ts">
import type { BrakeCheck } from '#core/brake/checks'
import type { BrakeSeen, Diagnosis } from '#core/brake/diagnose'

const props = defineProps<{
  diagnosis: Diagnosis
  seen: readonly BrakeSeen[]
  /** This question was there to be read. */
  live: boolean
}>()
const emit = defineEmits<{ saw: [check: string, outcome: string]; cured: [fault: string] }>()
/** Another check than the one advised, chosen by hand. */
const own = ref<string | null>(null)
watchContents(
  () => props.seen,
  () => {
    own.value = null
  },
)
const check = computed<BrakeCheck | null>(
  () => props.diagnosis.checks.find(c => c.id === own.value) ?? props.diagnosis.next?.check ?? null,
)
const found = computed(() => (own.value ? null : props.diagnosis.found))
/** Looked at before: it speaks against all else that was seen, or against a part that would be bought. */
const again = computed(() => props.seen.some(s => s.check === check.value?.id))
// a new question is read from its beginning, wherever the answer before it was
const root = useTemplateRef<HTMLElement>('root')
watch(
  () => found.value?.id ?? check.value?.id,
  () => void nextTick(() => root.value?.closest('aside')?.scrollTo({ top: 0 })),
)
</script>

<template>
  <div ref="root" class="grid gap-2">
    <section aria-live="polite" class="grid gap-2">
      <template v-if="found">
        <p
          class="text-2xl leading-tight font-bold"
          :class="{ 'text-clean': found.id === 'none' }"
          data-test="brake-found"
        >
          {{ found.words }}
        </p>
        <p class="leading-snug" data-test="brake-cure">{{ found.cure }}</p>
        <p v-if="found.caution" class="border-l-[6px] border-stop pl-2 text-sm font-semibold">{{ found.caution }}</p>
        <button
          v-if="found.id !== 'none'"
          type="button"
          class="act"
          data-test="brake-cured"
          @click="emit('cured', found.id)"
        >
          Put right <kbd class="key">Enter</kbd>
        </button>
      </template>
      <template v-else-if="check">
        <p v-if="again" class="small" data-test="brake-again">
          What was seen here speaks against the rest. Look again:
        </p>
        <p class="text-2xl leading-tight font-bold" data-test="brake-check">{{ check.ask }}</p>
        <SawKeys :outcomes="check.outcomes" :live="live" test="saw" @saw="emit('saw', check.id, $event)" />
      </template>
      <p v-else class="text-xl font-bold" data-test="brake-found">
        Nothing more to look at here: a qualified mechanic decides.
      </p>
    </section>
    <ChanceBars :faults="diagnosis.faults" test="brake-fault" />
    <details v-if="diagnosis.checks.length" class="border-t border-rule pt-1">
      <summary class="min-h-11 cursor-pointer py-2 font-semibold" data-test="other-checks">
        Look at something else
      </summary>
      <div class="grid gap-1">
        <button
          v-for="c in diagnosis.checks"
          :key="c.id"
          type="button"
          class="also min-h-11! text-left text-[0.9375rem]"
          :data-test="`check-${c.id}`"
          @click="own = c.id"
        >
          {{ c.ask }}
        </button>
      </div>
    </details>
  </div>
</template>
