<!-- Looks at a brake that is not diagnosed here: enough to keep it from riding. -->
<script setup lang="ts">
import type { BrakeCheck } from '#core/brake/checks'
import type { BrakeSeen } from '#core/brake/diagnose'

const props = defineProps<{ checks: readonly BrakeCheck[]; seen: readonly BrakeSeen[] }>()
const emit = defineEmits<{ saw: [check: string, outcome: string] }>()
const seenAs = (check: string) => props.seen.find(s => s.check === check)?.outcome ?? null
const choicesOf = (c: BrakeCheck) => c.outcomes.map(([value, words]) => ({ value, words }))
</script>

<template>
  <div class="grid gap-3">
    <p class="border-l-[6px] border-ink pl-2" data-test="not-diagnosed">
      Hydraulic: proven here like any brake, not diagnosed. Leaking or spongy, it stays, and goes to who is trained for
      it; the maker’s instructions win.
    </p>
    <section v-for="c in checks" :key="c.id" class="grid gap-1.5">
      <p class="text-xl leading-tight font-bold">{{ c.ask }}</p>
      <ChoiceRow
        :model-value="seenAs(c.id)"
        :label="c.ask"
        :choices="choicesOf(c)"
        :columns="1"
        :centred="false"
        size="roomy"
        test="saw"
        @update:model-value="o => o && emit('saw', c.id, o)"
      />
    </section>
  </div>
</template>
