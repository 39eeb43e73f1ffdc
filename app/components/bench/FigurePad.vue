<!-- One figure in mm or degrees: usual ones as touches, any other typed; a caliper that types is a keyboard. -->
<script setup lang="ts">
import { typedNumber } from '#core/quantity/typed'
import { useEventListener } from '@vueuse/core'
import { FIGURE_TYPED } from '~/composables/benchKeys'

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
const text = ref('')
const id = useId()
const value = computed(() => typedNumber(text.value))
const wrong = computed(() => {
  if (text.value.trim() === '') return null
  if (!Number.isFinite(value.value)) return `${props.label}: type a number in ${props.unit}`
  if (value.value < props.least || value.value > props.most)
    return `${props.label}: from ${props.least} to ${props.most} ${props.unit}`
  return null
})
const say = (v: number) =>
  v === 0
    ? (props.zeroWord ?? '0')
    : `${props.signed && v < 0 ? '−' : ''}${Math.abs(v) >= 10 ? Math.abs(v).toFixed(0) : Math.abs(v).toFixed(1)}`
useEventListener(FIGURE_TYPED, typed => {
  text.value = String(typed.detail)
  send()
})
function send() {
  if (text.value.trim() === '' || wrong.value) return
  emit('figure', value.value)
  text.value = ''
}
</script>

<template>
  <div>
    <div class="small flex justify-between">
      <span>{{ inWord }}</span
      ><span>{{ outWord }}</span>
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
    <form class="mt-2 flex gap-2" @submit.prevent="send">
      <label :for="id" class="sr-only">{{ label }}, {{ hint ?? `${unit}, + inboard` }}</label>
      <input
        :id="id"
        v-model="text"
        class="field figure flex-1"
        inputmode="decimal"
        autocomplete="off"
        :placeholder="hint ?? `${unit}, + inboard`"
        :aria-invalid="wrong ? 'true' : undefined"
        data-test="figure-typed"
      />
      <button class="also" :disabled="!text.trim() || Boolean(wrong)">Note it</button>
    </form>
    <p v-if="wrong" class="mt-1 text-sm font-semibold text-stop" role="alert">{{ wrong }}</p>
  </div>
</template>
