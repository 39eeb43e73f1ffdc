<!-- The owner's month on one page: jobs and how they went, what held, time, housing, which standards cost most. Jobs,
     not people. -->
<script setup lang="ts">
import { addMonths, format } from 'date-fns'
import { MonthView } from '#core/http/month'
import { LEFT_WORDS, type Leaves } from '#core/job/events'
import { JOB_KIND_WORDS, type JobKind } from '#core/job/minutes'
import { CAUSE_WORDS } from '#core/response/causes'
import { sayStandard } from '#core/records/chapters'
import { countOf } from '#core/quantity/words'

useHead({ title: 'Month · Ocho' })
const now = format(new Date(), 'yyyy-MM')
const month = ref(/^20\d\d-\d\d$/.test(String(useRoute().query.of)) ? String(useRoute().query.of) : now)
const { data: view, error } = await useRead(MonthView, () => `/api/shop/month?month=${month.value}`)
const title = computed(() => format(new Date(`${month.value}-15T12:00:00`), 'MMMM yyyy'))
const go = (by: number) => {
  month.value = format(addMonths(new Date(`${month.value}-15T12:00:00`), by), 'yyyy-MM')
}
const jobs = computed(() => view.value?.kinds.reduce((s, k) => s + k.jobs, 0) ?? 0)
const most = computed(() => Math.max(1, ...(view.value?.kinds.map(k => k.jobs) ?? [])))
const hours = computed(() => (view.value?.kinds.reduce((s, k) => s + (k.minutes ?? 0), 0) ?? 0) / 60)
const firstTime = computed(() => {
  const r = view.value?.right
  const judged = r ? r.jobs - r.young : 0
  return r && judged > 0 ? Math.round((100 * (judged - r.back)) / judged) : null
})
const sayKind = (kind: string) => JOB_KIND_WORDS[kind as JobKind] ?? kind
const sayMetres = (mm: number) => `${(mm / 1000).toFixed(1)} m`
const print = () => window.print()
</script>

<template>
  <div>
    <PageHead title="Month" />
    <main class="mx-auto max-w-6xl px-4 py-4 sm:px-6">
      <p v-if="error" class="stopped" role="alert">{{ error.data?.data?.message ?? OFFLINE_WORDS }}</p>
      <div class="flex flex-wrap items-center gap-x-4">
        <button
          type="button"
          class="also no-print min-h-11!"
          aria-label="The month before"
          data-test="month-before"
          @click="go(-1)"
        >
          ‹
        </button>
        <h2 class="text-2xl font-bold" data-test="month-title">{{ title }}</h2>
        <button
          type="button"
          class="also no-print min-h-11!"
          aria-label="The month after"
          :disabled="month >= now"
          @click="go(1)"
        >
          ›
        </button>
        <span class="no-print ml-auto flex gap-x-5"
          ><button type="button" class="quiet underline" @click="print">Print</button
          ><a class="quiet underline" :href="`/api/shop/month?month=${month}&as=csv`" data-test="month-csv"
            >CSV</a
          ></span
        >
      </div>
      <template v-if="view">
        <dl class="mt-4 grid grid-cols-2 gap-4 sm:grid-cols-4">
          <div class="border-t-2 border-ink pt-1">
            <dt class="small">Jobs</dt>
            <dd class="figure text-3xl font-semibold" data-test="month-jobs">{{ jobs }}</dd>
          </div>
          <div class="border-t-2 border-ink pt-1">
            <dt class="small">Right the first time</dt>
            <dd class="figure text-3xl font-semibold">{{ firstTime === null ? '–' : `${firstTime} %` }}</dd>
            <dd class="small">
              {{ view.right.back }} of {{ view.right.jobs - view.right.young }} came back with a fault{{
                view.right.young ? `; ${view.right.young} are too new to say` : ''
              }}
            </dd>
          </div>
          <div class="border-t-2 border-ink pt-1">
            <dt class="small">Time at the stand</dt>
            <dd class="figure text-3xl font-semibold">{{ hours < 10 ? hours.toFixed(1) : Math.round(hours) }} h</dd>
            <dd class="small">told by the taps on jobs</dd>
          </div>
          <div class="border-t-2 border-ink pt-1">
            <dt class="small">Housing fitted</dt>
            <dd class="figure text-3xl font-semibold">{{ sayMetres(view.fitted.mm) }}</dd>
            <dd class="small">{{ countOf(view.fitted.pieces, 'piece') }} recorded</dd>
          </div>
        </dl>
        <div class="mt-6 grid gap-8 lg:grid-cols-2">
          <section aria-labelledby="kinds-title">
            <h3 id="kinds-title" class="font-bold">Jobs by kind</h3>
            <table v-if="view.kinds.length" class="mt-1 w-full border-t-2 border-ink" data-test="kinds">
              <thead>
                <tr class="small text-left">
                  <th class="font-normal">kind</th>
                  <th class="font-normal"><span class="sr-only">share</span></th>
                  <th class="text-right font-normal">jobs</th>
                  <th class="text-right font-normal">minutes each</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="k in view.kinds" :key="k.kind" class="border-t border-rule">
                  <td class="py-2">{{ sayKind(k.kind) }}</td>
                  <td class="w-2/5">
                    <span class="block h-3 bg-ink" :style="{ width: `${(100 * k.jobs) / most}%` }" />
                  </td>
                  <td class="figure text-right font-semibold">{{ k.jobs }}</td>
                  <td class="figure text-right">{{ k.median === null ? '–' : Math.round(k.median) }}</td>
                </tr>
              </tbody>
            </table>
            <p v-else class="mt-2 border-2 border-dashed border-rule p-4 text-soft">No job was closed in this month.</p>
            <p v-if="view.ends.length" class="small mt-2">
              {{ view.ends.map(e => `${LEFT_WORDS[e.how as Leaves]?.toLowerCase() ?? e.how} ${e.jobs}`).join(', ') }}
            </p>
            <h3 class="mt-6 font-bold">What the advice has learnt here</h3>
            <ul v-if="view.learnt.shares.length" class="mt-1 border-t-2 border-ink" data-test="learnt">
              <li
                v-for="s in view.learnt.shares"
                :key="s.cause"
                class="flex min-h-11 items-center justify-between border-b border-rule"
              >
                <span>{{ CAUSE_WORDS[s.cause] }}</span
                ><span
                  ><b class="figure">{{ Math.round(100 * s.here) }} %</b>
                  <span class="small ml-2">of bikes, usually {{ Math.round(100 * s.usually) }} %</span></span
                >
              </li>
            </ul>
            <p class="small mt-2">
              {{
                view.learnt.shares.length
                  ? `From the last ${view.learnt.jobs} rear derailleurs closed here: the next bike’s odds start from it.`
                  : 'Nothing yet: five closed rear derailleurs are the least it learns from.'
              }}
            </p>
          </section>
          <section aria-labelledby="rounds-title">
            <h3 id="rounds-title" class="font-bold">Standards that cost most turns of a screw</h3>
            <ul v-if="view.standards.length" class="mt-1 border-t-2 border-ink">
              <li v-for="s in view.standards" :key="s.standard" class="border-b border-rule">
                <NuxtLink
                  :to="`/standards/records/${encodeURIComponent(s.standard)}?figure=rounds`"
                  class="grid min-h-12 grid-cols-[minmax(0,1fr)_auto] items-center gap-x-3"
                  ><span class="min-w-0"
                    ><b class="figure">{{ s.standard }}</b>
                    <span class="small block truncate">{{
                      sayStandard(s.standard) ?? 'a part of your own'
                    }}</span></span
                  ><span class="text-right"
                    ><b class="figure">{{ s.rounds.toFixed(1) }}</b>
                    <span class="small block">{{ countOf(s.bikes, 'bike') }}, most {{ s.slowest }}</span></span
                  ></NuxtLink
                >
              </li>
            </ul>
            <p v-else class="mt-2 text-soft">Nothing was turned in this month.</p>
            <h3 class="mt-6 font-bold">Housing in stock</h3>
            <ul v-if="view.housing.length" class="mt-1 border-t-2 border-ink">
              <li
                v-for="h in view.housing"
                :key="h.kind"
                class="flex min-h-11 items-center justify-between border-b border-rule"
              >
                <span>{{ h.kind }}</span
                ><span class="figure">{{ sayMetres(h.usedMm) }} used, {{ sayMetres(h.leftMm) }} left</span>
              </li>
            </ul>
            <p v-else class="mt-2 text-soft">No rolls are noted: the cable bench keeps them.</p>
          </section>
        </div>
      </template>
    </main>
  </div>
</template>
