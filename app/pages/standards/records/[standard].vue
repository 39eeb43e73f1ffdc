<script setup lang="ts">
import { RadioGroup, RadioGroupOption } from '@headlessui/vue'
import { RecordPoint, RecordsOfStandard } from '#core/http/records'
import { sayRecord } from '#core/chapter/records'
import { RECORD_RULES, recordRule } from '#core/records/chapters'
import { FRAME_WORDS, type FrameKind } from '#core/records/frames'
import type { Seen } from '#core/records/question'

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
const { data: points, status } = await useFetch(
  () => `/api/standards/records/${encodeURIComponent(standard)}/${encodeURIComponent(chosen.value)}`,
  { immediate: chosen.value !== '', watch: [chosen], transform: (raw: unknown) => RecordPoint.array().parse(raw) },
)
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
        <p class="text-soft">
          {{ records.bikes }} {{ records.bikes === 1 ? 'bike' : 'bikes' }}, the latest figure of each.
          <NuxtLink to="/standards/records" class="underline">All standards</NuxtLink>
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
              <span>{{ f.rule.what }}</span><span class="figure text-right text-lg font-semibold">{{
                sayRecord(f.rule, f.seen.median)
              }}</span>
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
              <span class="small text-right">{{ f.seen.bikes }} {{ f.seen.bikes === 1 ? 'bike' : 'bikes' }}</span>
            </button>
          </RadioGroupOption>
        </RadioGroup>
        <p v-if="!figures.length" class="mt-3 border-2 border-dashed border-rule p-6 text-soft">
          Nothing is recorded under {{ standard }} yet.
        </p>
      </section>
      <section v-if="one && seen" class="min-w-0" :aria-label="one.rule.what" data-test="one-figure">
        <h2 class="text-xl font-bold">{{ one.rule.what }}</h2>
        <p class="figure text-lg" data-test="spread">
          median <b>{{ sayFigure(seen.median) }}</b>, half between {{ sayFigure(seen.quarter) }} and
          {{ sayFigure(seen.threeQuarters) }}, all between {{ sayFigure(seen.least) }} and {{ sayFigure(seen.most) }},
          {{ seen.bikes }} {{ seen.bikes === 1 ? 'bike' : 'bikes' }}
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
        <p v-if="status === 'pending'" class="mt-2 text-soft" role="status">Reading the figures</p>
        <ol class="mt-3 max-h-80 overflow-y-auto border-t border-rule" data-test="points">
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
              <b class="figure">{{ sayFigure(p.value) }}</b><span
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
