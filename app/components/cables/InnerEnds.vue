<!-- The inner beyond the run's pieces: its head, what lies in the lever and from the last stop to the bolt, its tail.
  -->
<script setup lang="ts">
import { headOf, headsOf } from '#core/cable/heads'
import { Run } from '#core/cable/run'
import { beyondOf, type FarEnd } from '#core/cable/wire'
import { typedNumber } from '#core/quantity/typed'

const props = defineProps<{ run: Run; at: FarEnd }>()
const emit = defineEmits<{ keep: [run: Run] }>()
const HEADS = headsOf(props.run.run).map(value => ({ value, words: value }))
const { leverMm, boltMm } = beyondOf(props.run, props.at)
/** Where each refusal of the run is said; what no line here asks stands at the first. */
const LINES: Record<string, string> = { 'beyond.boltMm': 'bolt', tailMm: 'tail' }
const ends = useEntryForm({
  initial: { lever: String(leverMm), bolt: String(boltMm), tail: String(props.run.tailMm) },
  schema: Run,
  read: typed => ({
    ...props.run,
    beyond: { leverMm: typedNumber(typed.lever), boltMm: typedNumber(typed.bolt) },
    tailMm: typedNumber(typed.tail),
  }),
  line: field => LINES[field] ?? 'lever',
  done: run => emit('keep', run),
})
</script>

<template>
  <details class="border-t border-rule pt-1">
    <summary class="min-h-11 cursor-pointer py-2 font-semibold" data-test="inner-ends">
      Head, lever and bolt{{ run.beyond ? '' : ', as usual' }}
    </summary>
    <div class="grid gap-2">
      <ChoiceRow
        :model-value="headOf(run)"
        label="Head of the inner"
        :choices="HEADS"
        test="head"
        @update:model-value="h => h && emit('keep', { ...run, head: h })"
      />
      <p v-if="headOf(run) === null" class="small">Pear or large barrel: look at the lever.</p>
      <form class="grid gap-2" novalidate @submit.prevent="ends.form.handleSubmit()">
        <div class="grid grid-cols-3 gap-2">
          <FormLine :of="ends" name="lever" label="In the lever" mono inputmode="numeric" /><FormLine
            :of="ends"
            name="bolt"
            label="Stop to bolt"
            mono
            inputmode="numeric"
          /><FormLine :of="ends" name="tail" label="Tail" mono inputmode="numeric" />
        </div>
        <p class="small">mm of wire that no piece shows. Usual ones are from memory: measure the old inner.</p>
        <button class="also justify-center" data-test="keep-ends">Keep these ends</button>
      </form>
    </div>
  </details>
</template>
