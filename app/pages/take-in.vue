<script setup lang="ts">
import { TZDate } from '@date-fns/tz'
import { addDays, format, set } from 'date-fns'
import { NumberOfJob } from '#core/http/answers'
import { FoundBike, TakeIn } from '#core/http/job'
import { FRAME_KINDS, FRAME_WORDS, type FrameKind } from '#core/records/frames'
import {
  readTypedParts,
  typedFromParts,
  typedFromStandard,
  standardById,
  withMeasured,
  type TypedParts,
} from '#core/rear/typedParts'
import { fromSixteenths } from '#core/quantity/turns'

useHead({ title: 'Take a bike in · Ocho' })
const route = useRoute()
const { catalogue, parts: partsHere } = await useCatalogue()
const measuring = ref(false)
const session = useSession()
const zone = computed(() => session.now?.shop.zone ?? 'UTC')

const known = shallowRef<FoundBike | null>(null)
const wanted = { bike: String(route.query.bike ?? ''), q: String(route.query.q ?? '') }
if (wanted.bike && wanted.q) {
  const { data } = await useRead(FoundBike.array(), '/api/bikes', { query: { q: wanted.q } })
  known.value = data.value?.find(f => f.bike.id === wanted.bike) ?? null
}

const lastSheet = computed(() => known.value?.last?.sheet ?? null)
const empty: TypedParts = {
  ...typedFromStandard(standardById('r17-9')!),
  shifterStandard: '',
  speeds: '',
  pullMm: '',
  derailleurStandard: '',
  pullRatio: '',
  cassetteStandard: '',
  teeth: '',
  pitchMm: '',
}
const typed = ref<TypedParts>(
  lastSheet.value?.parts
    ? typedFromParts(lastSheet.value.parts, fromSixteenths(lastSheet.value.barrelSixteenths))
    : empty,
)
const before = JSON.stringify(typed.value)
/** A hub gear, a single speed, or only brakes to see to: no derailleur at the back. */
const without = ref(lastSheet.value !== null && lastSheet.value.parts === null)
function withOrWithout() {
  without.value = !without.value
  measuring.value = false
}
function measured(change: Partial<TypedParts>) {
  typed.value = withMeasured(typed.value, change)
  measuring.value = false
}
const sameParts = computed(() =>
  without.value
    ? lastSheet.value?.parts === null
    : Boolean(lastSheet.value?.parts) &&
      JSON.stringify({ ...typed.value, turnsOut: '' }) === JSON.stringify({ ...JSON.parse(before), turnsOut: '' }),
)
const read = computed(() => readTypedParts(typed.value))

/** Times the shop promises most; the field below takes any other. */
const promises = computed(() =>
  [
    [0, 17],
    [1, 12],
    [1, 17],
    [2, 17],
  ].map(([days, hours]) => {
    const at = set(addDays(new TZDate(new Date(), zone.value), days), {
      hours,
      minutes: 0,
      seconds: 0,
      milliseconds: 0,
    })
    return {
      words: days === 0 ? `Today ${hours}:00` : days === 1 ? `Tomorrow ${hours}:00` : format(at, 'EEEE HH:mm'),
      local: format(at, "yyyy-MM-dd'T'HH:mm"),
    }
  }),
)

/** A known bike and customer are named by id, new ones described: each side is asked by its own schema, whose words say more. */
const side = known.value ? 0 : 1
const Order = TakeIn.extend({
  customer: TakeIn.shape.customer.options[side]!,
  bike: TakeIn.shape.bike.options[side]!,
})
const frameKind: FrameKind | '' = ''
const order = useContractForm({
  initial: {
    customer: { name: '', contact: '' },
    bike: { name: '', frameNumber: '' },
    frameKind: frameKind as FrameKind | '',
    tag: '',
    promised: '',
    complaint: '',
  },
  schema: Order,
  read: values => ({
    customer: known.value ? { id: known.value.customer.id } : values.customer,
    bike: {
      ...(known.value ? { id: known.value.bike.id } : values.bike),
      ...(values.frameKind ? { frameKind: values.frameKind } : {}),
    },
    tag: values.tag,
    promisedAt: fromShopClock(values.promised, zone.value),
    complaint: values.complaint,
    parts: without.value ? null : read.value.is === 'parts' ? read.value.parts : undefined,
    sameParts: sameParts.value,
  }),
  line: field => (field === 'promisedAt' ? 'promised' : field),
  send: value => ask(NumberOfJob, '/api/jobs', { method: 'POST', body: value }),
  done: ({ number }) => navigateTo(without.value ? `/jobs/${number}` : `/jobs/${number}/rear`),
})
const { form, trouble, server } = order
const typedOrder = form.useStore(s => s.values)
const past = form.useStore(s => inThePast(fromShopClock(s.values.promised, zone.value)))
const tried = form.useStore(s => s.submissionAttempts > 0)
</script>

<template>
  <div>
    <PageHead title="Take a bike in" />
    <main class="mx-auto max-w-6xl px-4 py-5 sm:px-6">
      <form
        class="grid gap-x-10 gap-y-6 lg:grid-cols-[1fr_1.25fr]"
        novalidate
        data-test="take-in-form"
        @submit.prevent="form.handleSubmit()"
      >
        <section class="grid content-start gap-4">
          <div v-if="known" class="border-l-[6px] border-ink pl-3" data-test="known">
            <p class="text-lg font-bold">{{ known.bike.name }}</p>
            <p>{{ known.customer.name }}{{ known.customer.contact ? `, ${known.customer.contact}` : '' }}</p>
            <p class="small">
              {{ known.bike.frameNumber ? `frame ${known.bike.frameNumber}, ` : ''
              }}{{
                known.last
                  ? `last sheet ${sayWhen(known.last.closedAt, zone)}, job ${known.last.number}`
                  : 'no sheet yet'
              }}
            </p>
          </div>
          <template v-else>
            <div class="grid gap-4 sm:grid-cols-2">
              <FormLine :of="order" name="customer.name" label="Customer" />
              <FormLine :of="order" name="customer.contact" label="Contact" />
              <FormLine :of="order" name="bike.name" label="Bike" />
              <FormLine :of="order" name="bike.frameNumber" label="Frame number" mono />
            </div>
            <p class="small">
              Was it here before? <NuxtLink to="/" class="underline">Find it on the Floor</NuxtLink> and it starts from
              its last sheet.
            </p>
          </template>
          <p v-if="server.bike || server.customer" class="stopped">{{ server.bike ?? server.customer }}</p>
          <label class="label"
            >Kind of frame, as housing goes<select
              class="field"
              :value="typedOrder.frameKind"
              data-test="frame-kind"
              @change="form.setFieldValue('frameKind', ($event.target as HTMLSelectElement).value as FrameKind | '')"
            >
              <option value="">{{ known ? 'as before' : 'not noted' }}</option>
              <option v-for="f in FRAME_KINDS" :key="f" :value="f">{{ FRAME_WORDS[f] }}</option>
            </select></label
          >
          <div class="grid gap-4 sm:grid-cols-[7rem_1fr]">
            <FormLine :of="order" name="tag" label="Tag" mono />
            <FormLine :of="order" name="promised" label="Promised" type="datetime-local" mono test="promised" />
          </div>
          <div class="flex flex-wrap gap-2">
            <button
              v-for="p in promises"
              :key="p.local"
              type="button"
              class="also"
              :class="{ chosen: typedOrder.promised === p.local }"
              @click="form.setFieldValue('promised', p.local)"
            >
              {{ p.words }}
            </button>
          </div>
          <p v-if="past" class="stopped" role="status" data-test="past">That time has passed: is it meant?</p>
          <FormLine :of="order" name="complaint" label="What the customer says" long test="complaint" />
        </section>
        <section>
          <p v-if="sameParts" class="mb-3 border-l-[6px] border-clean pl-3 font-semibold">
            Same parts as on its last sheet: Ocho starts from what it knew then.
          </p>
          <p class="mb-2 flex flex-wrap justify-between gap-2">
            <button
              type="button"
              class="also min-h-11!"
              :class="{ chosen: without }"
              :aria-pressed="without"
              data-test="no-derailleur"
              @click="withOrWithout"
            >
              No derailleur at the back</button
            ><button
              v-if="!without"
              type="button"
              class="quiet"
              :aria-expanded="measuring"
              data-test="measure-parts"
              @click="measuring = !measuring"
            >
              {{ measuring ? 'Done measuring' : 'Nobody knows the parts: measure them' }}
            </button>
          </p>
          <p v-if="without" class="text-lg">
            Hub gear, single speed or only brakes: the benches for hub, brakes and cables are there, the rear bench is
            not.
          </p>
          <DrivetrainFields
            v-else
            v-model="typed"
            :catalogue="catalogue"
            :read="read"
            :show-errors="tried"
            :counted-words="lastSheet ? 'as it left here' : 'counted on the bike'"
          />
        </section>
        <section v-if="measuring" class="border-t-2 border-ink pt-4 lg:col-span-2" aria-label="Measure the parts">
          <MeasuringAid :parts="partsHere" :catalogue="catalogue" use-words="These are its parts" @use="measured" />
        </section>
        <div class="flex flex-wrap items-center gap-4 border-t border-rule pt-4 lg:col-span-2">
          <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
          <form.Subscribe v-slot="{ isSubmitting }">
            <button class="act ml-auto min-w-56" :disabled="isSubmitting">
              {{ isSubmitting ? 'Taking it in' : 'Take it in' }}
            </button>
          </form.Subscribe>
        </div>
      </form>
    </main>
  </div>
</template>
