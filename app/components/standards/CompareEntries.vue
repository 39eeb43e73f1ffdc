<!-- Two entries side by side, with what parts them. -->
<script setup lang="ts">
import { meanOf, sayFigure } from '#core/standards/entry'
import { FIGURES, KIND_WORDS } from '#core/standards/kinds'
import { inForceFigure, nameOf, type EntryInForce } from '#core/standards/shopValues'

const props = defineProps<{ one: EntryInForce; other: EntryInForce }>()
const emit = defineEmits<{ close: [] }>()
const rules = computed(() =>
  FIGURES[props.one.kind].filter(r => inForceFigure(props.one, r.key) || inForceFigure(props.other, r.key)),
)
const of = (e: EntryInForce, key: string) => {
  const f = inForceFigure(e, key)
  return f ? sayFigure(e.kind, f) : '–'
}
function apart(key: string, unit: string): string {
  const a = inForceFigure(props.one, key)
  const b = inForceFigure(props.other, key)
  if (!a || !b) return ''
  const by = meanOf(b.value) - meanOf(a.value)
  return Math.abs(by) < 1e-9
    ? 'the same'
    : `${by > 0 ? '+' : '−'}${Math.round(Math.abs(by) * 1000) / 1000}${unit ? ` ${unit}` : ''} (${by > 0 ? '+' : '−'}${Math.abs((100 * by) / meanOf(a.value)).toFixed(1)} %)`
}
</script>

<template>
  <div class="grid gap-3" data-test="comparison">
    <p class="text-soft">{{ KIND_WORDS[one.kind].many }}</p>
    <h2 class="figure text-xl font-bold">{{ nameOf(one) }} and {{ nameOf(other) }}</h2>
    <dl class="border-t border-rule">
      <div v-for="r in rules" :key="r.key" class="border-b border-rule py-2">
        <dt class="text-soft">{{ r.what }}</dt>
        <dd class="figure grid grid-cols-2 gap-2 text-lg">
          <span class="break-words">{{ of(one, r.key) }}</span><span class="break-words">{{ of(other, r.key) }}</span>
        </dd>
        <dd class="figure" :class="apart(r.key, r.unit) === 'the same' ? 'text-soft' : 'font-semibold'">
          {{ apart(r.key, r.unit) }}
        </dd>
      </div>
    </dl>
    <button type="button" class="also justify-center" @click="emit('close')">Done comparing</button>
  </div>
</template>
