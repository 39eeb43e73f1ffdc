<!-- One figure in mm or degrees: usual ones as touches, any other typed; a caliper that types is a keyboard. -->
<script setup lang="ts">
import { z } from 'zod'
import { typedNumber } from '#core/quantity/typed'
import { within } from '#core/quantity/within'

const props = defineProps<{
  label: string
  unit: string
  usual: readonly number[]
  least: number
  most: number
  zeroWord?: string
  inWord: string
  outWord: string
  hint?: string
  signed?: boolean
}>()
const emit = defineEmits<{ figure: [value: number] }>()
const figure = useEntryForm({
  initial: { figure: '' },
  schema: z.object({ figure: within(`${props.label}, ${props.unit}`, props.least, props.most) }),
  read: typed => ({ figure: typedNumber(typed.figure) }),
  done: read => {
    emit('figure', read.figure)
    figure.form.reset()
  },
})
useFigureTyped(text => {
  figure.form.setFieldValue('figure', text)
  void figure.form.handleSubmit()
})
const say = (v: number) =>
  v === 0
    ? (props.zeroWord ?? '0')
    : `${props.signed && v < 0 ? '−' : ''}${Math.abs(v) >= 10 ? Math.abs(v).toFixed(0) : Math.abs(v).toFixed(1)}`
</script>

<template>
  <div>
    <div class="small flex justify-between">
      <span>{{ inWord }}</span><span>{{ outWord }}</span>
    </div>
    <div class="mt-1 grid gap-1" :style="{ gridTemplateColumns: `repeat(${usual.length}, 1fr)` }">
      <button
        v-for="v in usual"
        :key="v"
        type="button"
        class="also figure min-h-14! justify-center px-0! text-base"
        :data-test="`figure-${v}`"
        :aria-label="v === 0 ? say(v) : `${say(v)} ${unit} ${v > 0 ? inWord : outWord}`"
        @click="emit('figure', v)"
      >
        {{ say(v) }}
      </button>
    </div>
    <form class="mt-2" novalidate @submit.prevent="figure.form.handleSubmit()">
      <FormLine
        :of="figure"
        name="figure"
        :label="label"
        bare
        mono
        inputmode="decimal"
        :placeholder="hint ?? `${unit}, + inboard`"
        test="figure-typed"
      >
        <button class="also">Note it</button>
      </FormLine>
    </form>
  </div>
</template>
