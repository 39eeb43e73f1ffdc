<script setup lang="ts">
import { RadioGroup, RadioGroupOption } from '@headlessui/vue'
import { RecordPoint, RecordsOfStandard } from '#core/http/records'
import { sayRecord } from '#core/chapter/records'
import { RECORD_RULES, recordRule, sayFault, sayStandard } from '#core/records/chapters'
import { FRAME_WORDS, type FrameKind } from '#core/standards/frames'
import { sayBikes, type Seen } from '#core/records/question'
import { refDebounced } from '@vueuse/core'
import { countOf } from '#core/quantity/words'

const standard = String(useRoute().params.standard)
useHead({ title: `${standard} · Records · Ocho` })
const session = useSession()
const zone = computed(() => session.now?.shop.zone ?? 'UTC')
const { data: records, error } = await useRead(
  RecordsOfStandard,
  `/api/standards/records/${encodeURIComponent(standard)}`,
)
const figures = computed(() =>
  RECORD_RULES.flatMap(rule => {
    const f = records.value?.figures.find(x => x.figure === rule.key)
    return f ? [{ rule, ...f }] : []
  }),
)
const wanted = useRoute().query.figure
const chosen = ref(figures.value.find(f => f.rule.key === wanted)?.rule.key ?? figures.value[0]?.rule.key ?? '')
const frame = ref<FrameKind | 'all' | 'none'>('all')
const one = computed(() => figures.value.find(f => f.rule.key === chosen.value) ?? null)
/** Which of the figure's points: by days and words. */
const asked = reactive({ from: '', to: '', q: '' })
const typed = refDebounced(toRef(asked, 'q'), 250)
const {
  data: points,
  status,
  error: notFound,
} = await useFetch(() => `/api/standards/records/${encodeURIComponent(standard)}/${encodeURIComponent(chosen.value)}`, {
  query: computed(() => ({ from: asked.from || undefined, to: asked.to || undefined, q: typed.value || undefined })),
  immediate: chosen.value !== '',
  watch: [chosen],
  transform: (raw: unknown) => RecordPoint.array().parse(raw),
})
const narrowed = computed(() => Boolean(asked.from || asked.to || asked.q))
const all = () => Object.assign(asked, { from: '', to: '', q: '' })
const mayExport = computed(() => session.now?.person?.role === 'owner')
const file = (as: 'json' | 'records') => `/api/standards/export?as=${as}&standard=${encodeURIComponent(standard)}`
const print = () => window.print()
/** How cures held, as far as it is known. */
const sayHeld = (f: { held: number; back: number }) =>
  f.held + f.back === 0 ? 'too new to say' : `held ${f.held} of ${f.held + f.back}`
watch(chosen, () => {
  frame.value = 'all'
})
const shown = computed(() =>
  (points.value ?? []).filter(
    p => frame.value === 'all' || (frame.value === 'none' ? p.frame === null : p.frame === frame.value),
  ),
)
const seen = computed<Seen | null>(() =>
  !one.value
    ? null
    : frame.value === 'all'
      ? one.value.seen
      : (one.value.frames.find(f => (frame.value === 'none' ? f.frame === null : f.frame === frame.value))?.seen ??
        null),
)
const frames = computed(() => (one.value?.rule.byFrame ? one.value.frames : []))
const frameChoices = computed(() => [
  { value: 'all' as const, words: 'all frames' },
  ...frames.value.map(f => ({
    value: f.frame ?? ('none' as const),
    words: sayFrame(f.frame),
    aside: `${f.seen.bikes}`,
  })),
])
const sayFrame = (f: FrameKind | null) => (f ? FRAME_WORDS[f] : 'frame not noted')
const sayFigure = (v: number) => sayRecord(recordRule(chosen.value)!, v)

/** Where the middle half, the median and the ends lie along a line, in per cent of it. */
function line(s: Seen) {
  const span = s.most - s.least
  const at = (v: number) => (span > 0 ? ((v - s.least) / span) * 100 : 50)
  return { from: at(s.quarter), to: at(s.threeQuarters), median: at(s.median) }
}
const open = (p: RecordPoint) => {
  if (p.job) void navigateTo(`/jobs/${p.job.number}/sheet`)
}
</script>

<template>
  <div>
    <PageHead title="Standards"><StandardsNav /></PageHead>
    <main class="mx-auto grid max-w-[1440px] gap-x-8 gap-y-5 px-4 py-4 sm:px-6 lg:grid-cols-[26rem_minmax(0,1fr)]">
      <p v-if="error" class="stopped lg:col-span-2" role="alert">{{ OFFLINE_WORDS }}</p>
      <section v-if="records" aria-label="Figures">
        <h2 class="text-2xl font-bold">
          <span class="figure">{{ standard }}</span>
        </h2>
        <p>{{ sayStandard(standard) ?? 'a part of your own' }}</p>
        <p class="text-soft">
          {{ countOf(records.bikes, 'bike') }}, the latest figure of each.
          <NuxtLink to="/standards/records" class="no-print underline">All standards</NuxtLink>
        </p>
        <p class="no-print mt-2 flex flex-wrap gap-x-5">
          <button type="button" class="quiet underline" data-test="print-standard" @click="print">Print</button>
          <template v-if="mayExport"
            ><a class="quiet underline" :href="file('records')" data-test="standard-csv">Records, CSV</a
            ><a class="quiet underline" :href="file('json')" data-test="standard-json">All, JSON</a></template
          >
        </p>
        <RadioGroup v-model="chosen" as="div" aria-label="Figure" class="mt-3 border-t-2 border-ink">
          <RadioGroupOption
            v-for="f in figures"
            :key="f.rule.key"
            v-slot="{ checked }"
            as="template"
            :value="f.rule.key"
          >
            <button
              type="button"
              class="grid min-h-14 w-full grid-cols-[1fr_11.5rem] items-center gap-x-3 border-b border-l-[6px] border-b-rule py-1 pl-2 text-left"
              :class="checked ? 'border-ink bg-panel' : 'border-transparent'"
              :data-test="`figure-${f.rule.key}`"
            >
              <span>{{ f.rule.what }}</span
              ><span class="figure text-right text-lg font-semibold">{{ sayRecord(f.rule, f.seen.median) }}</span>
              <svg
                class="col-span-1 block h-3 w-full"
                viewBox="0 0 100 12"
                preserveAspectRatio="none"
                aria-hidden="true"
              >
                <path d="M0 6H100" stroke="var(--rule)" stroke-width="2" />
                <rect
                  :x="line(f.seen).from"
                  :width="Math.max(1, line(f.seen).to - line(f.seen).from)"
                  y="2"
                  height="8"
                  fill="var(--soft)"
                />
                <rect :x="Math.min(98.5, line(f.seen).median)" width="1.5" y="0" height="12" fill="var(--ink)" />
              </svg>
              <span class="small text-right">{{ sayBikes(f.seen.bikes) }}</span>
            </button>
          </RadioGroupOption>
        </RadioGroup>
        <p v-if="!figures.length" class="mt-3 border-2 border-dashed border-rule p-6 text-soft">
          Nothing is recorded under {{ standard }} yet.
        </p>
        <template v-if="records.faults.length">
          <h3 class="mt-5 font-bold">What was wrong, and whether the cure held</h3>
          <ul class="border-t-2 border-ink" data-test="faults">
            <li
              v-for="f in records.faults"
              :key="f.fault"
              class="grid min-h-11 grid-cols-[1fr_auto] items-center gap-x-3 border-b border-rule py-1"
            >
              <span>{{ sayFault(standard, f.fault) }}</span
              ><span class="figure font-semibold">{{ countOf(f.found, 'time') }}</span
              ><span class="small col-span-2"
                >{{ f.cured }} put right, {{ sayHeld(f)
                }}{{ f.found > f.cured ? `, ${f.found - f.cured} left as it was` : '' }}</span
              >
            </li>
          </ul>
        </template>
      </section>
      <section v-if="one && seen" class="min-w-0" :aria-label="one.rule.what" data-test="one-figure">
        <h2 class="text-xl font-bold">{{ one.rule.what }}</h2>
        <p class="figure text-lg" data-test="spread">
          <template v-if="sayFigure(seen.least) === sayFigure(seen.most)"
            ><b>{{ sayFigure(seen.median) }}</b>{{ seen.bikes > 1 ? ', all alike' : '' }}</template
          ><template v-else
            >median <b>{{ sayFigure(seen.median) }}</b>, half between {{ sayFigure(seen.quarter) }} and
            {{ sayFigure(seen.threeQuarters) }}, all between {{ sayFigure(seen.least) }} and
            {{ sayFigure(seen.most) }}</template
          >, {{ sayBikes(seen.bikes) }}
        </p>
        <ChoiceRow
          v-if="frames.length > 1"
          v-model="frame"
          class="mt-2"
          label="Kind of frame"
          test="frame"
          :columns="Math.min(4, frames.length + 1)"
          :choices="frameChoices"
        />
        <div class="mat mt-3 p-2">
          <ClientOnly
            ><LazyRecordChart :points="shown" :seen="seen" :unit="one.rule.unit" :zone="zone" @open="open" /><template
              #fallback
              ><p class="grid h-80 place-items-center text-mat-soft">Drawing</p></template
            ></ClientOnly
          >
        </div>
        <form
          class="no-print mt-3 grid grid-cols-2 items-end gap-2 sm:grid-cols-[1fr_9.5rem_9.5rem_auto]"
          @submit.prevent
        >
          <label class="label col-span-2 sm:col-span-1"
            >Bike, tag or job<input v-model="asked.q" class="field" autocomplete="off" data-test="points-q"
          /></label>
          <label class="label"
            >From<input v-model="asked.from" class="field figure" type="date" data-test="points-from"
          /></label>
          <label class="label"
            >To<input v-model="asked.to" class="field figure" type="date" data-test="points-to"
          /></label>
          <button v-if="narrowed" type="button" class="quiet" data-test="points-all" @click="all">Show all</button>
        </form>
        <p v-if="notFound" class="wrong mt-2" role="alert">{{ notFound.data?.data?.message ?? OFFLINE_WORDS }}</p>
        <p v-else-if="status === 'pending'" class="mt-2 text-soft" role="status">Reading the figures</p>
        <p v-else-if="!shown.length" class="mt-2 text-soft" role="status">
          {{ narrowed ? 'No such figure in these days, or of such a bike.' : 'Nothing here.' }}
        </p>
        <ol class="no-print mt-3 max-h-80 overflow-y-auto border-t border-rule" data-test="points">
          <li v-for="p in shown" :key="p.id" class="border-b border-rule">
            <NuxtLink
              v-if="p.job"
              :to="`/jobs/${p.job.number}/sheet`"
              class="grid min-h-11 grid-cols-[11rem_1fr_auto] items-center gap-x-3"
              ><b class="figure">{{ sayFigure(p.value) }}</b
              ><span
                >{{ p.bike?.name ?? p.origin ?? ''
                }}<span v-if="one.rule.byFrame" class="small ml-2">{{ sayFrame(p.frame) }}</span
                ><span v-if="!p.latest" class="small">, replaced by a later one</span></span
              ><span class="small">job {{ p.job.number }}, {{ sayTime(p.at, zone) }}</span></NuxtLink
            >
            <div v-else class="grid min-h-11 grid-cols-[11rem_1fr_auto] items-center gap-x-3">
              <b class="figure">{{ sayFigure(p.value) }}</b
              ><span
                >{{ p.bike?.name ?? p.origin ?? ''
                }}<span v-if="one.rule.byFrame" class="small ml-2">{{ sayFrame(p.frame) }}</span
                ><span v-if="!p.latest" class="small">, replaced by a later one</span></span
              ><span class="small">{{ sayTime(p.at, zone) }}</span>
            </div>
          </li>
        </ol>
      </section>
    </main>
  </div>
</template>
