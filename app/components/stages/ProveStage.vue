<!-- Prove: every gear both ways on each ring, several clicks at a stroke, under load on the road; torques to the sheet.
  -->
<script setup lang="ts">
import { PROVED_WORDS } from '#core/rear/say'
import type { JobState } from '#core/ledger/reduce'
import type { LedgerEvent } from '#core/ledger/events'
import type { Schools } from '#core/procedure/schools'
import type { Stage } from '#core/procedure/stages'
import { judgePeak, rearTorques, type TorqueId } from '#core/procedure/torques'
import { PROVENANCE_WORDS } from '#core/quantity/provenance'
import { ringCountOf } from '#core/ledger/ringCount'
import { mayReachLargest, reachesLargest } from '#core/rear/gates'
import { leftOut, ringsOf, type Ring } from '#core/rear/rings'
import { newRunOf } from '#core/rear/newRun'
import type { Riding } from '#core/standards/riding'
import { BEDDING_SHIFTS, beddingGains, sayForecast, SETTLE, settleForecast, settlingIn } from '#core/rear/settle'

const props = defineProps<{ state: JobState; schools: Schools }>()
const emit = defineEmits<{ record: [event: LedgerEvent, words?: string]; go: [stage: Stage] }>()
type What = 'ring' | 'several' | 'road'
const teeth = computed(() => props.state.rear.setup!.teeth)
const { standards, record } = storeToRefs(useLedger())
const torques = computed(() => rearTorques(standards.value))
/** Rows of the grid: each ring both ways, several clicks, the road. */
const rings = computed(() => ringCountOf(props.state))
type Row = { what: What; ring: Ring | null; words: string; without: readonly number[] }
const ROWS = computed<readonly Row[]>(() => [
  ...(ringsOf(rings.value).length
    ? ringsOf(rings.value).map(ring => ({
        what: 'ring' as const,
        ring,
        words: `${ring} ring`,
        without: crossed.value ? [] : leftOut(ring, teeth.value.length),
      }))
    : [{ what: 'ring' as const, ring: null, words: 'every gear', without: [] }]),
  { what: 'several', ring: null, words: 'several clicks', without: [] },
  { what: 'road', ring: null, words: 'on the road', without: [] },
])
/** Are the pairs that cross asked for all the same? */
const crossed = ref(false)
const row = ref(0)
const marked = ref(new Set<number>())
watch(row, () => {
  marked.value = new Set()
})
function toggle(k: number) {
  const next = new Set(marked.value)
  if (!next.delete(k)) next.add(k)
  marked.value = next
}
const noted = (what: What, ring: Ring | null) =>
  props.state.rear.proved.find(p => p.what === what && p.ring === ring) ?? null
const cell = (r: Row, i: number, k: number): 'clean' | 'not' | 'open' | 'without' => {
  if (i === row.value && marked.value.has(k)) return 'not'
  const p = noted(r.what, r.ring)
  if (r.without.includes(k) && !p?.exceptions.includes(k)) return 'without'
  return p ? (p.exceptions.includes(k) ? 'not' : 'clean') : 'open'
}
function note() {
  const { what, ring } = ROWS.value[row.value]!
  emit(
    'record',
    { kind: 'proved', what, ring, exceptions: [...marked.value].sort((a, b) => a - b) },
    marked.value.size ? 'Noted' : 'All clean',
  )
  marked.value = new Set()
  if (row.value < ROWS.value.length - 1) row.value++
}
const here = computed(() => ROWS.value[row.value]!)
const barred = computed(
  () =>
    !mayReachLargest(props.state.rear.trace) &&
    reachesLargest(
      { kind: 'proved', what: here.value.what, ring: here.value.ring, exceptions: [] },
      teeth.value.length,
    ),
)
const loose = ref(new Set<TorqueId>())
function toggleTorque(id: TorqueId) {
  const next = new Set(loose.value)
  if (!next.delete(id)) next.add(id)
  loose.value = next
}
/** What a wrench read, bolt by bolt, and which bolt it is on: the first that it was not used on, or the one touched. */
const peaks = ref<Partial<Record<TorqueId, number>>>({ ...props.state.rear.torqued?.peaksNm })
const PEAK_WORDS = {
  right: 'as it should be',
  under: 'too slack: tighten on',
  over: 'too much: let it off, look at thread and part, tighten anew',
} as const
const peakSaid = ref('')
const bolt = computed(() => torques.value.find(t => peaks.value[t.id] === undefined) ?? null)
/** A wrench that types, or tells it on a line of its own. */
useFigureTyped(text => {
  const nm = Number(text)
  const on = bolt.value
  if (!on || !(nm > 0 && nm <= 80)) return void (peakSaid.value = on ? `${nm} N·m is no torque of a bolt here` : '')
  const judged = judgePeak(on, nm)
  peakSaid.value = `${on.what}, ${nm} N·m: ${PEAK_WORDS[judged]}`
  if (judged === 'right') peaks.value = { ...peaks.value, [on.id]: nm }
  if ((judged === 'right') === loose.value.has(on.id)) toggleTorque(on.id)
}, 'N·m')
const read = computed(() => Object.keys(peaks.value).length)
const torqued = () =>
  emit(
    'record',
    { kind: 'torqued', exceptions: [...loose.value], ...(read.value ? { peaksNm: peaks.value } : {}) },
    'Noted the torques',
  )
const RIDING_CHOICES = [
  { value: 'daily', words: 'Daily' },
  { value: 'weekly', words: 'Weekly' },
  { value: 'seldom', words: 'Less' },
] as const satisfies readonly { value: Riding; words: string }[]
/** What its rider said on the visit it starts from: offered, not taken for granted. */
const lastRiding = computed(() => {
  const last = record.value?.known?.settle?.riding
  return RIDING_CHOICES.find(r => r.value === last)?.words ?? null
})
const run = computed(() => newRunOf(props.state.rear, props.state.cable))
const forecast = computed(() => (run.value ? settleForecast(run.value, settlingIn(standards.value)) : null))
/** How many days bedding puts the next look off; null where it is done, or gains little. */
const bedding = computed(() => (run.value ? beddingGains(null, run.value, settlingIn(standards.value)) : null))
</script>

<template>
  <div>
    <section class="look" aria-label="Prove">
      <div class="mat overflow-x-auto p-3">
        <p class="text-sm text-mat-soft">every gear both ways; a stand hides flex, so the road too</p>
        <table class="mt-2 w-full text-center" data-test="grid">
          <thead>
            <tr>
              <th class="text-left font-normal text-mat-soft">sprocket</th>
              <th v-for="k in teeth.length" :key="k" class="figure font-normal" scope="col">
                {{ teeth[teeth.length - k] }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(r, i) in ROWS" :key="r.words" :class="{ active: row === i }">
              <th scope="row" class="text-left">
                <button
                  type="button"
                  class="min-h-11 w-full pr-2 text-left whitespace-nowrap"
                  :aria-current="row === i ? 'true' : undefined"
                  :data-test="`row-${r.ring ?? r.what}`"
                  @click="row = i"
                >
                  {{ r.words }}
                </button>
              </th>
              <td v-for="k in teeth.length" :key="k">
                <button
                  type="button"
                  class="cell figure"
                  :class="cell(r, i, teeth.length - k)"
                  :disabled="row !== i"
                  :aria-label="`${r.words}, the ${teeth[teeth.length - k]}: ${{ clean: 'clean', not: 'not clean', open: 'not proven', without: 'crossed, left out' }[cell(r, i, teeth.length - k)]}`"
                  :data-test="`cell-${i}-${teeth.length - k}`"
                  @click="toggle(teeth.length - k)"
                >
                  {{ { clean: '✓', not: '×', open: '·', without: '–' }[cell(r, i, teeth.length - k)] }}
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <div>
        <h2 class="font-bold">Torques, N·m, unless the maker says otherwise</h2>
        <div class="mt-1 grid gap-1.5 md:grid-cols-2">
          <button
            v-for="t in torques"
            :key="t.id"
            type="button"
            class="also min-h-12!"
            :class="loose.has(t.id) ? 'border-stop! text-stop!' : 'border-rule!'"
            :aria-pressed="loose.has(t.id)"
            :data-test="`torque-${t.id}`"
            @click="toggleTorque(t.id)"
          >
            <span
              >{{ t.what }} <span class="small block">{{ t.drive }}, {{ PROVENANCE_WORDS[t.provenance] }}</span></span
            ><span class="figure whitespace-nowrap">{{
              loose.has(t.id)
                ? 'not yet'
                : peaks[t.id] === undefined
                  ? `${t.fromNm}–${t.toNm}`
                  : `${peaks[t.id]} of ${t.fromNm}–${t.toNm}`
            }}</span>
          </button>
        </div>
        <p v-if="peakSaid" class="mt-1 font-semibold" role="status" data-test="peak">{{ peakSaid }}</p>
        <p v-if="bolt && (read || peakSaid)" class="small" data-test="peak-next">
          A torque wrench that tells its figure is next on: {{ bolt.what }}.
        </p>
        <p class="small mt-1">On carbon, titanium or a cracked part no figure from memory counts: the maker’s does.</p>
      </div>
    </section>
    <aside class="panel" aria-label="Proof">
      <p class="small">{{ PROVED_WORDS[here.what] }}</p>
      <p class="text-3xl leading-none font-bold">{{ here.words }}</p>
      <p v-if="barred" class="stopped" data-test="prove-barred">
        This runs to the largest sprocket: see L by hand first.
      </p>
      <button type="button" class="act" :disabled="barred" data-test="prove-note" @click="note">
        {{ marked.size ? `All clean but ${marked.size}` : 'All clean' }}
      </button>
      <p class="small">
        Touch a gear that was not clean first.
        {{
          here.what === 'several'
            ? 'Two and three clicks at a stroke, both ways.'
            : here.what === 'road'
              ? 'Ride it, push hard in each gear, then over a bump.'
              : here.without.length
                ? `The ${teeth[here.without[0]!]} crosses on this ring: left out.`
                : 'One click at a time, in and back.'
        }}
      </p>
      <label v-if="ringsOf(rings).length" class="flex min-h-11 items-center gap-2"
        ><input v-model="crossed" type="checkbox" class="size-6" data-test="crossed" /> Crossed pairs too</label
      >
      <button
        v-if="marked.size === 0 && state.rear.proved.some(p => p.exceptions.length)"
        type="button"
        class="also"
        data-test="back-to-index"
        @click="emit('go', 'index')"
      >
        Back to the index
      </button>
      <button type="button" class="also" data-test="torqued" @click="torqued">
        {{ loose.size ? `All to sheet but ${loose.size}` : 'All torques to sheet' }}{{ state.rear.torqued ? ' ✓' : '' }}
      </button>
      <button type="button" class="also" @click="emit('go', 'cable')">
        Cut and cap{{ state.rear.cut ? ` ✓ ${state.rear.cut.tailMm} mm` : '' }}
      </button>
      <p v-if="forecast" class="border-t border-rule pt-2" data-test="forecast">
        New run: expect the barrel {{ sayForecast(forecast) }} after {{ SETTLE.rides }} or {{ SETTLE.weeks
        }}{{ standards.settled.length ? `, as ${standards.settled.length} that came back here say` : '' }}.
        <template v-if="bedding"
          >{{ BEDDING_SHIFTS }} firm full-range shifts before it leaves put the next look off by
          {{ bedding }} days.</template
        >
      </p>
      <div v-if="run">
        <p class="label" data-test="ridden-asked">
          How much is it ridden?<span v-if="lastRiding" class="font-normal">
            Last time: {{ lastRiding.toLowerCase() }}.</span
          >
        </p>
        <ChoiceRow
          :model-value="state.rear.riding"
          label="How much it is ridden"
          :choices="RIDING_CHOICES"
          test="ridden"
          @update:model-value="how => how && emit('record', { kind: 'ridden', how }, 'Noted')"
        />
      </div>
      <div class="mt-auto grid gap-2"><slot /></div>
    </aside>
  </div>
</template>

<style scoped>
.cell {
  min-width: 40px;
  min-height: 44px;
  width: 100%;
  border-radius: 4px;
  font-size: 1.125rem;
  color: var(--mat-soft);
}
.active {
  background: var(--mat-veil);
}
.active .cell {
  border: 1px solid var(--mat-dim);
}
.cell.clean {
  color: var(--mat-clean);
}
.cell.not {
  background: var(--mat-stop);
  color: var(--night);
  font-weight: 600;
}
tr.active th button {
  font-weight: 700;
}
</style>
