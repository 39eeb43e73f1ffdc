<!-- A part the table does not have, by its numbers as measured here. -->
<script setup lang="ts">
import { typedNumbers } from '#core/quantity/typed'
import type { StandardsView } from '#core/http/standards'
import { FIGURES, KIND_WORDS } from '#core/standards/kinds'
import { OWN_ID } from '#core/standards/shopValues'

const props = defineProps<{ kind: 'shifter' | 'derailleur' | 'cassette'; taken: readonly string[] }>()
const emit = defineEmits<{ set: [view: StandardsView]; close: []; added: [id: string] }>()
const rules = computed(() => FIGURES[props.kind].filter(r => !r.derived))
const needed = (key: string) => ['speeds', 'pullMm', 'ratio', 'pitchMm'].includes(key)
const name = ref('')
const values = reactive<Record<string, string>>({})
const errors = shallowRef<Record<string, string>>({})
const trouble = ref('')
const busy = ref(false)

async function send() {
  trouble.value = ''
  const id = `own-${name.value
    .trim()
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')}`
  const found: Record<string, string> = {}
  if (!OWN_ID.test(id)) found.name = 'Name: 1 to 24 letters or digits'
  else if (props.taken.includes(id)) found.name = 'You have one of that name: measure that one, or choose another'
  const claims = rules.value.flatMap(r => {
    const list = typedNumbers(values[r.key] ?? '')
    if (!list.length) {
      if (needed(r.key)) found[r.key] = `${r.what}: type it`
      return []
    }
    if (list.some(v => !Number.isFinite(v) || v < r.least || v > r.most)) {
      found[r.key] = `${r.what}: from ${r.least} to ${r.most}${r.unit && ` ${r.unit}`}`
      return []
    }
    return [{ kind: props.kind, entry: id, figure: r.key, value: list.length === 1 ? list[0] : list, note: '' }]
  })
  const speeds = claims.find(c => c.figure === 'speeds')?.value
  for (const c of claims)
    if (typeof c.value === 'object' && typeof speeds === 'number' && c.value.length !== speeds - 1)
      found[c.figure] = `One number, or ${speeds - 1} of them`
  errors.value = found
  if (Object.keys(found).length) return
  busy.value = true
  const asked = await ask<StandardsView>('/api/standards/values', { method: 'POST', body: { claims } })
  busy.value = false
  if (asked.is !== 'done') return void (trouble.value = asked.is === 'offline' ? OFFLINE_WORDS : asked.message)
  emit('set', asked.value)
  emit('added', id)
}
</script>

<template>
  <form class="grid gap-3" novalidate data-test="own-part" @submit.prevent="send">
    <h2 class="text-xl font-bold">A {{ KIND_WORDS[kind].one.toLowerCase() }} of your own</h2>
    <TextField v-model="name" label="Name, short" :error="errors.name" hint="what you will look for in lists" />
    <TextField
      v-for="r in rules"
      :key="r.key"
      :model-value="values[r.key] ?? ''"
      :label="`${r.what}${r.unit ? `, ${r.unit}` : ''}${needed(r.key) ? '' : ' (if measured)'}`"
      mono
      inputmode="decimal"
      :error="errors[r.key]"
      :hint="r.shape === 'each' ? 'one number, or one for each with spaces between' : ''"
      @update:model-value="values[r.key] = $event"
    />
    <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
    <div class="flex gap-2">
      <button class="act flex-1 justify-center" :disabled="busy" data-test="keep-own">Add it</button
      ><button type="button" class="quiet" @click="emit('close')">Leave it</button>
    </div>
  </form>
</template>
