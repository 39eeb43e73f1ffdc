<script setup lang="ts">
import { BikeView } from '#core/http/records'
import { sayRecord } from '#core/chapter/records'
import { chainWearLimitPercent } from '#core/rear/chain'
import { CABLE_LIMIT_MM, WEARS, wearForecast } from '#core/rear/wearForecast'
import { FRICTION, RECORD_RULES, recordRule } from '#core/records/chapters'
import { FRAME_WORDS } from '#core/standards/frames'

const id = String(useRoute().params.id)
const session = useSession()
const zone = computed(() => session.now?.shop.zone ?? 'UTC')
const { data: bike, error, refresh } = await useRead(BikeView, `/api/bikes/${encodeURIComponent(id)}`)
useHead({ title: () => `${bike.value?.name ?? 'Bike'} · Ocho` })
const figures = computed(() =>
  RECORD_RULES.flatMap(rule => {
    const points = bike.value?.records.filter(r => r.figure === rule.key) ?? []
    return points.length ? [{ rule, points }] : []
  }),
)
/** Figures that are drawn over its visits, where there are at least two of one. */
const LINES = ['barrel-out', 'barrel', 'slack', 'friction', 'chain', 'gap', 'housing last loop', 'housing full length']
const lines = computed(() =>
  LINES.flatMap(key => {
    const rule = recordRule(key)!
    const points = (bike.value?.records ?? [])
      .filter(r => r.figure === key)
      .map(r => ({ at: Date.parse(r.at), value: r.value, words: sayRecord(rule, r.value) }))
      .sort((a, b) => a.at - b.at)
    return points.length > 1 ? [{ rule, points }] : []
  }),
)
const span = computed(() => {
  const at = lines.value.flatMap(l => l.points.map(p => p.at))
  return { from: Math.min(...at), to: Math.max(...at) }
})
const readOf = (figure: string) => bike.value?.records.filter(r => r.figure === figure) ?? []
/** When its chain and its gear cable will want renewing, as they wore here. */
const chain = computed(() => {
  const n = bike.value?.sprockets
  if (!n) return null
  const limit = chainWearLimitPercent(n)
  const f = wearForecast(WEARS.chain, readOf('chain'), limit)
  return f && { ...f, limit }
})
const cable = computed(() =>
  bike.value?.sprockets ? wearForecast(WEARS.cable, readOf(FRICTION), CABLE_LIMIT_MM, bike.value.cableRenewedAt) : null,
)
</script>

<template>
  <div>
    <PageHead :title="bike?.name ?? 'Bike'"
      ><span v-if="bike" class="text-soft">{{ bike.customer.name }}</span></PageHead
    >
    <main class="mx-auto grid max-w-6xl gap-x-10 gap-y-8 px-4 py-5 sm:px-6 lg:grid-cols-[1fr_1.3fr]">
      <p v-if="error" class="stopped lg:col-span-2" role="alert">{{ error.data?.data?.message ?? OFFLINE_WORDS }}</p>
      <template v-if="bike">
        <section>
          <p v-if="bike.frameNumber || bike.frame" class="text-soft">
            {{
              [bike.frameNumber && `frame ${bike.frameNumber}`, bike.frame && FRAME_WORDS[bike.frame]]
                .filter(Boolean)
                .join(', ')
            }}
          </p>
          <p v-if="bike.recall" class="mt-2 border-l-[6px] border-ink pl-3" data-test="bike-recall">
            To be seen again {{ sayDay(bike.recall.dueOn) }}.
            <NuxtLink to="/recalls" class="underline">Recalls</NuxtLink>
          </p>
          <p v-if="bike.last?.right !== null && bike.last" class="mt-2">
            Left with every gear clean, <b class="figure">{{ Math.round(100 * bike.last.right!) }} %</b> sure.
          </p>
          <p v-if="chain" class="mt-2" data-test="chain-forecast">
            Its chain reaches {{ chain.limit }} % about <b>{{ sayDay(chain.likely) }}</b>, between
            {{ sayDay(chain.from) }} and {{ sayDay(chain.to) }} in two of three cases.
          </p>
          <p v-if="cable" class="mt-2" data-test="cable-forecast">
            Its gear cable will want renewing about <b>{{ sayDay(cable.likely) }}</b>, between
            {{ sayDay(cable.from) }} and {{ sayDay(cable.to) }} in two of three cases, as its friction grows.
          </p>
          <p v-if="bike.visits.every(v => v.closedAt) && bike.last" class="mt-3">
            <NuxtLink
              :to="`/take-in?bike=${bike.id}&q=${encodeURIComponent(bike.name)}`"
              class="act inline-flex"
              data-test="start-from-last"
              >Take it in, from its last sheet</NuxtLink
            >
          </p>
          <h2 class="mt-4 text-lg font-bold">Visits</h2>
          <ol class="mt-1 border-t-2 border-ink">
            <li v-for="v in bike.visits" :key="v.number" class="border-b border-rule">
              <NuxtLink :to="v.closedAt ? `/jobs/${v.number}/sheet` : `/jobs/${v.number}`" class="block min-h-12 py-1.5"
                ><b class="figure">{{ v.number }}</b> “{{ v.complaint }}”<span class="small block">{{
                  v.closedAt ? `handed back ${sayTime(v.closedAt, zone)}` : `here since ${sayTime(v.createdAt, zone)}`
                }}</span></NuxtLink
              >
            </li>
          </ol>
          <template v-if="bike.changed.length">
            <h2 class="mt-6 text-lg font-bold">Renewed</h2>
            <ul class="mt-1 border-t-2 border-ink" data-test="changed">
              <li v-for="c in bike.changed" :key="`${c.job} ${c.at}`" class="border-b border-rule py-1.5">
                {{ c.what.join(', ') }}<span class="small ml-2">{{ sayDay(c.at.slice(0, 10)) }}</span>
              </li>
            </ul>
          </template>
          <template v-if="bike.photos.length">
            <h2 class="mt-6 text-lg font-bold">As it was found</h2>
            <ul class="mt-1 grid grid-cols-3 gap-2">
              <li v-for="p in bike.photos" :key="p.id">
                <a :href="`/api/jobs/${p.job}/photos/${p.id}`" class="block"
                  ><img
                    :src="`/api/jobs/${p.job}/photos/${p.id}`"
                    :alt="`${p.of}, job ${p.job}, ${sayDay(p.at.slice(0, 10))}`"
                    class="aspect-square w-full border border-rule object-cover"
                    loading="lazy"
                /></a>
              </li>
            </ul>
          </template>
          <CustomerPrivacy
            v-if="session.now?.person?.role === 'owner' && !bike.customer.erased"
            class="mt-6"
            :customer="bike.customer"
            @erased="refresh()"
          />
        </section>
        <section>
          <template v-if="lines.length">
            <h2 class="text-lg font-bold">Over its visits</h2>
            <div class="mat mt-1 mb-5 grid gap-x-4 p-3" data-test="lines">
              <div v-for="l in lines" :key="l.rule.key" class="border-b border-mat-grid py-1 last:border-b-0">
                <p class="text-sm text-mat-soft">{{ l.rule.what }}</p>
                <FigureOverTime :points="l.points" :from="span.from" :to="span.to" :label="l.rule.what" />
              </div>
            </div>
          </template>
          <h2 class="text-lg font-bold">What was measured and set</h2>
          <dl v-if="figures.length" class="mt-1 border-t-2 border-ink">
            <div
              v-for="f in figures"
              :key="f.rule.key"
              class="grid gap-x-4 border-b border-rule py-2 sm:grid-cols-[13rem_1fr]"
            >
              <dt>{{ f.rule.what }}</dt>
              <dd class="flex flex-wrap gap-x-4">
                <NuxtLink
                  v-for="(p, i) in f.points"
                  :key="i"
                  :to="`/jobs/${p.job.number}/sheet`"
                  class="flex min-h-11 items-center gap-1.5"
                  ><span class="figure underline underline-offset-4" :class="{ 'font-bold': i === 0 }">{{
                    sayRecord(f.rule, p.value)
                  }}</span
                  ><span class="small">{{ sayDay(p.at.slice(0, 10)) }}</span></NuxtLink
                >
              </dd>
            </div>
          </dl>
          <p v-else class="mt-2 text-soft">Nothing is recorded yet: figures are kept when a bike is handed back.</p>
        </section>
      </template>
    </main>
    <ConfirmOwner />
  </div>
</template>
