<!-- One figure in mm or degrees: usual ones as touches, any other typed; a caliper that types is a keyboard. -->
<script setup lang="ts">
import type { RunName } from '#core/cable/housing'
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
  /** Which figure of the records it is, where this shop keeps them. */
  like?: { run: RunName; figure: string }
}>()
const emit = defineEmits<{ figure: [value: number] }>()
/**
 * One figure is an instrument, not a form: it is read by the same bounds, without a form's machinery on the bench page.
 */
const Figure = within(`${props.label}, ${props.unit}`, props.least, props.most)
const text = ref('')
const trouble = ref<string | null>(null)
watch(text, () => {
  trouble.value = null
})
function send() {
  const read = Figure.safeParse(typedNumber(text.value))
  trouble.value = read.success ? null : read.error.issues[0]!.message
  if (!read.success) return
  emit('figure', read.data)
  text.value = ''
}
useFigureTyped(typed => {
  text.value = typed
  send()
})
const say = (v: number) =>
  v === 0
    ? (props.zeroWord ?? '0')
    : `${props.signed && v < 0 ? '−' : ''}${Math.abs(v) >= 10 ? Math.abs(v).toFixed(0) : Math.abs(v).toFixed(1)}`
/** All in one row, fewer abreast where letters are set so large that they would run out sideways. */
const columns = computed(
  () => `repeat(auto-fit, minmax(max(calc(100% / ${props.usual.length} - 4px), calc(5rem - 46px)), 1fr))`,
)
</script>

<template>
  <div>
    <div class="small flex justify-between"><span>{{ inWord }}</span><span>{{ outWord }}</span></div>
    <div class="mt-1 grid gap-1" :style="{ gridTemplateColumns: columns }">
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
    <form class="mt-2" novalidate @submit.prevent="send">
      <TextField
        v-model="text"
        :label="label"
        bare
        mono
        inputmode="decimal"
        :placeholder="hint ?? `${unit}, + inboard`"
        :error="trouble"
        test="figure-typed"
      >
        <button class="also px-3! whitespace-nowrap">Note it</button>
      </TextField>
    </form>
    <LikeHere v-if="like" class="mt-1" v-bind="like" @take="text = String($event)" />
  </div>
</template>
