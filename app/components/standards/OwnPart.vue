<!-- A part the table does not have, by its numbers as measured here. -->
<script setup lang="ts">
import { ClaimRequest, StandardsView } from '#core/http/standards'
import { typedNumbers } from '#core/quantity/typed'
import { FIGURES, KIND_WORDS } from '#core/standards/kinds'
import { figureValueOf, ownIdOf } from '#core/standards/shopValues'

const props = defineProps<{ kind: 'shifter' | 'derailleur' | 'cassette'; taken: readonly string[] }>()
const emit = defineEmits<{ set: [view: StandardsView]; close: []; added: [id: string] }>()
const rules = computed(() => FIGURES[props.kind].filter(r => !r.derived))
const NEEDED: ReadonlySet<string> = new Set(['speeds', 'pullMm', 'ratio', 'pitchMm'])
type Typed = { name: string; figures: Record<string, string> }
const initial: Typed = { name: '', figures: Object.fromEntries(rules.value.map(r => [r.key, ''])) }
/** What is claimed, in the order of the lines: what is needed stands even when nothing was typed. */
const asked = ({ figures }: Typed) => rules.value.filter(r => NEEDED.has(r.key) || figures[r.key]?.trim())
const part = useContractForm({
  initial,
  schema: ClaimRequest.refine(r => !r.claims.some(c => props.taken.includes(c.entry)), {
    path: ['claims', 0, 'entry'],
    message: 'You have one of that name: measure that one, or choose another',
  }),
  read: typed => ({
    claims: asked(typed).map(rule => ({
      kind: props.kind,
      entry: ownIdOf(typed.name),
      figure: rule.key,
      value: figureValueOf(rule, typedNumbers(typed.figures[rule.key] ?? '')),
      note: '',
    })),
  }),
  // claims.2.value
  line: (field, typed) => {
    const [, i, what] = field.split('.')
    return what === 'value' ? `figures.${asked(typed)[Number(i)]?.key ?? ''}` : 'name'
  },
  send: body => ask(StandardsView, '/api/standards/values', { method: 'POST', body }),
  done: (view, typed) => {
    emit('set', view)
    emit('added', ownIdOf(typed.name))
  },
})
const { form, trouble } = part
</script>

<template>
  <form class="grid gap-3" novalidate data-test="own-part" @submit.prevent="form.handleSubmit()">
    <h2 class="text-xl font-bold">A {{ KIND_WORDS[kind].one.toLowerCase() }} of your own</h2>
    <FormLine :of="part" name="name" label="Name, short" hint="what you will look for in lists" />
    <FormLine
      v-for="r in rules"
      :key="r.key"
      :of="part"
      :name="`figures.${r.key}`"
      :label="`${r.what}${r.unit ? `, ${r.unit}` : ''}${NEEDED.has(r.key) ? '' : ' (if measured)'}`"
      mono
      inputmode="decimal"
      :hint="r.shape === 'each' ? 'one number, or one for each with spaces between' : ''"
    />
    <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
    <form.Subscribe v-slot="{ isSubmitting }">
      <div class="flex gap-2">
        <button class="act flex-1 justify-center" :disabled="isSubmitting" data-test="keep-own">Add it</button
        ><button type="button" class="quiet" @click="emit('close')">Leave it</button>
      </div>
    </form.Subscribe>
  </form>
</template>
