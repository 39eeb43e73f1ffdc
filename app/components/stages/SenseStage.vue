<!-- Sense check: "all fine" in one touch, or touch what is not; what it means is said before any screw is turned. -->
<script setup lang="ts">
import { typedNumber } from '#core/quantity/typed'
import type { JobState } from '#core/ledger/reduce'
import type { LedgerEvent } from '#core/ledger/events'
import { SENSE_CHECK, type SenseId } from '#core/procedure/senseCheck'
import type { Schools } from '#core/procedure/schools'
import type { Stage } from '#core/procedure/stages'
import { chainLinks, chainWearLimitPercent } from '#core/rear/chain'

const props = defineProps<{ state: JobState; schools: Schools }>()
const emit = defineEmits<{ record: [event: LedgerEvent, words?: string]; go: [stage: Stage] }>()
const noted = computed(() => props.state.rear.sensed)
const marked = ref(new Set<SenseId>(noted.value?.exceptions ?? []))
watchContents(
  () => noted.value,
  () => {
    marked.value = new Set(noted.value?.exceptions ?? [])
  },
)
/** Does what is marked stand in the ledger so? */
const asNoted = computed(() => {
  const is = noted.value?.exceptions ?? []
  return is.length === marked.value.size && is.every(id => marked.value.has(id))
})
function toggle(id: SenseId) {
  const next = new Set(marked.value)
  if (!next.delete(id)) next.add(id)
  marked.value = next
}
const speeds = computed(() => props.state.rear.parts?.cassette.teeth.length ?? 11)
const { standards } = storeToRefs(useLedger())
const limit = computed(() => chainWearLimitPercent(speeds.value, false, standards.value))
const wearText = ref(noted.value?.chainWearPercent?.toString() ?? '')
const read = (t: string) => (t.trim() === '' ? null : typedNumber(t))
const wear = computed(() => read(wearText.value))
const wearWrong = computed(() =>
  wear.value === null
    ? null
    : !Number.isFinite(wear.value) || wear.value < 0 || wear.value > 3
      ? 'Chain wear: from 0 to 3 %'
      : null,
)
function note(exceptions: SenseId[]) {
  if (wearWrong.value) return
  const past = wear.value !== null && wear.value > limit.value
  emit(
    'record',
    {
      kind: 'sensed',
      exceptions: past && !exceptions.includes('worn') ? [...exceptions, 'worn'] : exceptions,
      chainWearPercent: wear.value,
    },
    exceptions.length ? 'Noted' : 'All fine',
  )
}
const stay = ref('')
const ring = ref('')
const links = computed<{ words: string; wrong: boolean } | null>(() => {
  if (!stay.value.trim() || !ring.value.trim()) return null
  try {
    const { exact, links: whole } = chainLinks({
      chainstayMm: read(stay.value)!,
      ringTeeth: read(ring.value)!,
      sprocketTeeth: props.state.rear.setup!.teeth.at(-1)!,
    })
    return {
      words: `${whole} links (${exact.toFixed(1)} by the formula, two for the derailleur, rounded up)`,
      wrong: false,
    }
  } catch (error) {
    return { words: (error as Error).message, wrong: true }
  }
})
</script>

<template>
  <div>
    <section class="look" aria-label="Sense check">
      <h2 class="text-lg font-bold">Touch what is not fine</h2>
      <div class="grid gap-1.5 md:grid-cols-2">
        <button
          v-for="i in SENSE_CHECK"
          :key="i.id"
          type="button"
          class="also min-h-12!"
          :class="marked.has(i.id) ? 'border-stop! text-stop!' : 'border-rule! font-normal!'"
          :aria-pressed="marked.has(i.id)"
          :data-test="`sense-${i.id}`"
          @click="toggle(i.id)"
        >
          <span>{{ marked.has(i.id) ? i.otherwise : i.fine }}</span
          ><span aria-hidden="true" class="figure">{{ marked.has(i.id) ? '×' : '' }}</span>
        </button>
      </div>
      <div class="mat p-3">
        <WearRule :percent="wearWrong ? null : wear" :limit="limit" :speeds="speeds" />
      </div>
    </section>
    <aside class="panel" aria-label="What it means">
      <p class="small" data-test="sense-noted">
        Sense check{{ noted ? (asNoted ? ', noted' : ', not noted yet') : '' }}
      </p>
      <p class="text-2xl leading-tight font-bold" data-test="sense-head">
        {{ marked.size ? `${marked.size} not fine` : noted ? 'All fine' : 'Before any screw' }}
      </p>
      <button type="button" class="act" data-test="sense-note" @click="note([...marked])">
        {{ marked.size ? 'Note these' : 'All fine' }}
      </button>
      <ul v-if="marked.size" class="grid gap-2" data-test="sense-does">
        <li
          v-for="i in SENSE_CHECK.filter(s => marked.has(s.id))"
          :key="i.id"
          :class="i.first ? 'border-l-[6px] border-stop pl-2' : 'border-l-[6px] border-rule pl-2'"
        >
          <b>{{ i.otherwise }}.</b> {{ i.does }}
        </li>
      </ul>
      <label class="label"
        >Chain gauge, %
        <input
          v-model="wearText"
          class="field figure"
          inputmode="decimal"
          autocomplete="off"
          placeholder="left out is fine"
          :aria-invalid="wearWrong ? 'true' : undefined"
          data-test="chain-wear"
        />
      </label>
      <p v-if="wearWrong" class="text-sm font-semibold text-stop" role="alert">{{ wearWrong }}</p>
      <p v-else-if="wear !== null && wear > limit" class="text-sm font-semibold text-stop" role="status">
        Past {{ limit }} %: name the chain as a cause before a screw is turned.
      </p>
      <details class="border-t border-rule pt-2">
        <summary class="min-h-11 cursor-pointer font-semibold">Chain length from chainstay and teeth</summary>
        <div class="mt-2 grid grid-cols-2 gap-2">
          <label class="label"
            >Chainstay, mm<input
              v-model="stay"
              class="field figure"
              inputmode="decimal"
              autocomplete="off"
              data-test="chainstay"
          /></label>
          <label class="label"
            >Largest ring, teeth<input
              v-model="ring"
              class="field figure"
              inputmode="numeric"
              autocomplete="off"
              data-test="ring"
          /></label>
        </div>
        <p
          v-if="links"
          :class="links.wrong ? 'text-sm font-semibold text-stop' : 'mt-1'"
          :role="links.wrong ? 'alert' : 'status'"
          data-test="links"
        >
          {{ links.words }}
        </p>
        <p class="small">Big and big must not be taut, small and small must not sag.</p>
      </details>
      <p class="small">Electric bike: off, battery out, wait. Push the cage inboard by thumb with the wheel still.</p>
      <div class="mt-auto grid gap-2"><slot /></div>
    </aside>
  </div>
</template>
