<script setup lang="ts">
import { BikeView } from '#core/http/records'
import { sayRecord } from '#core/chapter/records'
import { RECORD_RULES } from '#core/records/chapters'
import { FRAME_WORDS } from '#core/records/frames'

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
          <h2 class="mt-2 text-lg font-bold">Visits</h2>
          <ol class="mt-1 border-t-2 border-ink">
            <li v-for="v in bike.visits" :key="v.number" class="border-b border-rule">
              <NuxtLink :to="v.closedAt ? `/jobs/${v.number}/sheet` : `/jobs/${v.number}`" class="block min-h-12 py-1.5"
                ><b class="figure">{{ v.number }}</b> “{{ v.complaint }}”<span class="small block">{{
                  v.closedAt ? `handed back ${sayTime(v.closedAt, zone)}` : `here since ${sayTime(v.createdAt, zone)}`
                }}</span></NuxtLink
              >
            </li>
          </ol>
          <CustomerPrivacy
            v-if="session.now?.person?.role === 'owner' && !bike.customer.erased"
            class="mt-6"
            :customer="bike.customer"
            @erased="refresh()"
          />
        </section>
        <section>
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
