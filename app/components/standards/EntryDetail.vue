<!-- One entry: every figure with its source, what was measured here over the years, and a line to add to it. -->
<script setup lang="ts">
import type { z } from 'zod'
import { typedNumbers } from '#core/quantity/typed'
import { KIND_WORDS, OWN_KINDS } from '#core/standards/kinds'
import { sayFigure, sayValue } from '#core/standards/entry'
import { NICKNAME, type EntryInForce, type FigureInForce } from '#core/standards/shopValues'
import { ClaimRequest, StandardsView } from '#core/http/standards'
import { figureValueOf } from '#core/standards/shopValues'

const props = defineProps<{ entry: EntryInForce }>()
const emit = defineEmits<{ set: [view: StandardsView] }>()
const session = useSession()
const zone = computed(() => session.now?.shop.zone ?? 'UTC')
const may = computed(() => session.now?.person && session.now.person.role !== 'trainee')
/** Which figure is being measured, or the nickname. */
const editing = ref<string | null>(null)
const said = ref('')
const claimOf = (figure: string, value: number | number[] | string | null | undefined, note: string) => ({
  claims: [{ kind: props.entry.kind, entry: props.entry.id, figure, value, note: note.trim() }],
})
const send = (body: z.infer<typeof ClaimRequest>) =>
  ask(StandardsView, '/api/standards/values', { method: 'POST', body })
const claim = useContractForm({
  initial: { value: '', note: '' },
  schema: ClaimRequest,
  read: typed => claimOf(editing.value!, valueOf(typed.value), typed.note),
  line: field => (field.endsWith('.note') ? 'note' : 'value'),
  send,
  done: kept,
})
const { form, trouble } = claim
/** What was typed, as its figure is kept: a nickname as it is, empty for none. */
function valueOf(text: string): number | number[] | string | null | undefined {
  if (editing.value === NICKNAME) return text.trim() || null
  const rule = props.entry.figures.find(f => f.key === editing.value)?.rule
  return rule && figureValueOf(rule, typedNumbers(text))
}
function kept(view: StandardsView) {
  said.value = editing.value === NICKNAME ? 'That is what it is called here now' : 'Kept: it counts from now on'
  editing.value = null
  emit('set', view)
}
function edit(key: string, now: string) {
  editing.value = key
  form.reset({ value: now, note: '' })
  trouble.value = null
  said.value = ''
}
const busy = ref(false)
async function backToTable(figure: string) {
  busy.value = true
  const asked = await send(claimOf(figure, null, '') as z.infer<typeof ClaimRequest>)
  busy.value = false
  trouble.value = sayTrouble(asked)
  if (asked.is !== 'done') return
  said.value = 'Back to the table; what was measured stays in its history'
  emit('set', asked.value)
}
const HINTS: Partial<Record<FigureInForce['rule']['shape'], string>> = {
  each: 'one number, or one for each with spaces between',
  range: 'from and to, with a space between',
}
const canMeasure = (f: FigureInForce) => !f.rule.derived && f.key !== 'speeds'
</script>

<template>
  <div class="grid gap-3" data-test="detail">
    <div>
      <p class="text-soft">{{ KIND_WORDS[entry.kind].one }}</p>
      <h2 class="text-2xl leading-tight font-bold">
        <span class="figure">{{ entry.id }}</span><template v-if="entry.nickname">, {{ entry.nickname }}</template>
      </h2>
      <p v-if="!OWN_KINDS.some(k => k === entry.kind)">{{ entry.title }}</p>
    </div>
    <p v-if="said" class="font-semibold text-clean" role="status">{{ said }}</p>
    <ul class="border-t border-rule">
      <li v-for="f in entry.figures" :key="f.key" class="border-b border-rule py-2">
        <div class="flex items-start justify-between gap-2">
          <div class="min-w-0">
            <span class="text-soft">{{ f.rule.what }}</span>
            <p class="figure text-lg font-semibold break-words">{{ sayFigure(entry.kind, f) }}</p>
            <p class="small">
              {{
                f.provenance === 'shop' && f.history.length
                  ? `measured here, ${f.history.at(-1)!.by}, ${sayTime(f.history.at(-1)!.at, zone)}`
                  : ''
              }}<ProvenanceMark v-if="f.provenance !== 'shop' || !f.history.length" :of="f.provenance" full />{{
                f.source ? `: ${f.source}` : ''
              }}
            </p>
            <p v-if="f.table && f.provenance === 'shop' && f.history.length" class="small">
              The table says {{ sayValue(f.table.value, f.rule) }}.
            </p>
          </div>
          <button
            v-if="may && canMeasure(f) && editing !== f.key"
            type="button"
            class="quiet shrink-0"
            :data-test="`measure-${f.key}`"
            @click="edit(f.key, '')"
          >
            I measured
          </button>
        </div>
        <form v-if="editing === f.key" class="mt-2 grid gap-2" novalidate @submit.prevent="form.handleSubmit()">
          <FormLine
            :of="claim"
            name="value"
            :label="`${f.rule.what}${f.rule.unit ? `, ${f.rule.unit}` : ''}`"
            mono
            inputmode="decimal"
            :hint="HINTS[f.rule.shape]"
          />
          <FormLine :of="claim" name="note" label="How, in a few words" />
          <div class="flex flex-wrap gap-2">
            <button class="act flex-1 justify-center" data-test="keep">Keep it</button
            ><button type="button" class="quiet" @click="editing = null">Leave it</button>
          </div>
        </form>
        <button
          v-if="may && f.provenance === 'shop' && f.table && f.history.length && editing !== f.key"
          type="button"
          class="quiet -ml-2 text-sm"
          :disabled="busy"
          :data-test="`reset-${f.key}`"
          @click="backToTable(f.key)"
        >
          Back to the table
        </button>
        <details v-if="f.history.length" class="mt-1">
          <summary class="small flex min-h-11 cursor-pointer items-center">History, {{ f.history.length }}</summary>
          <ol class="small">
            <li v-for="(h, i) in [...f.history].reverse()" :key="i">
              <b class="figure text-ink">{{
                h.value === null
                  ? 'back to the table'
                  : typeof h.value === 'string'
                    ? h.value
                    : sayValue(h.value, f.rule)
              }}</b>
              {{ h.by }}, {{ sayTime(h.at, zone) }}{{ h.note ? `: ${h.note}` : '' }}
            </li>
          </ol>
        </details>
      </li>
    </ul>
    <template v-if="may">
      <button
        v-if="editing !== NICKNAME"
        type="button"
        class="also justify-center"
        data-test="nickname"
        @click="edit(NICKNAME, entry.nickname ?? '')"
      >
        {{ entry.nickname ? 'Change its name here' : 'Give it a name here' }}
      </button>
      <form v-else class="grid gap-2" novalidate @submit.prevent="form.handleSubmit()">
        <FormLine :of="claim" name="value" label="What this shop calls it" hint="empty: no name of its own" />
        <div class="flex gap-2">
          <button class="act flex-1 justify-center" data-test="keep">Keep it</button
          ><button type="button" class="quiet" @click="editing = null">Leave it</button>
        </div>
      </form>
    </template>
    <p v-else class="small">A mechanic or the owner adds what was measured.</p>
    <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
  </div>
</template>
