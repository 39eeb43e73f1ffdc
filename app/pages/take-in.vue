<script setup lang="ts">
import { TZDate } from '@date-fns/tz'
import { addDays, format, set } from 'date-fns'
import { z } from 'zod'
import { TakeIn, type FoundBike } from '#core/http/job'
import { issuesOf } from '#core/http/words'
import { FRAME_KINDS, FRAME_WORDS, type FrameKind } from '#core/records/frames'
import {
  readTypedParts,
  typedFromParts,
  typedFromStandard,
  standardById,
  withMeasured,
  type TypedParts,
} from '#core/ledger/typedParts'

useHead({ title: 'Take a bike in · Ocho' })
const route = useRoute()
const { catalogue, parts: partsHere } = await useCatalogue()
const measuring = ref(false)
const session = useSession()
const zone = computed(() => session.now?.shop.zone ?? 'UTC')

const known = shallowRef<FoundBike | null>(null)
const wanted = { bike: String(route.query.bike ?? ''), q: String(route.query.q ?? '') }
if (wanted.bike && wanted.q) {
  const { data } = await useFetch<FoundBike[]>('/api/bikes', { query: { q: wanted.q } })
  known.value = data.value?.find(f => f.bike.id === wanted.bike) ?? null
}

const values = reactive({
  customer: known.value?.customer.name ?? '',
  contact: known.value?.customer.contact ?? '',
  bike: known.value?.bike.name ?? '',
  frameNumber: known.value?.bike.frameNumber ?? '',
  tag: '',
  promised: '',
  complaint: '',
  frameKind: '' as FrameKind | '',
})
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
  lastSheet.value?.parts ? typedFromParts(lastSheet.value.parts, lastSheet.value.barrelSixteenths / 16) : empty,
)
const before = JSON.stringify(typed.value)
/** A hub gear, a single speed, or only brakes to see to: no derailleur at the back. */
const without = ref(lastSheet.value !== null && lastSheet.value.parts === null)
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
/** The field's wall-clock time as the shop's zone has it. */
function promisedAt(): string {
  const [date, time] = values.promised.split('T')
  if (!date || !time) return ''
  const [y, m, d] = date.split('-').map(Number)
  const [h, min] = time.split(':').map(Number)
  return new Date(new TZDate(y, m - 1, d, h, min, zone.value)).toISOString()
}

const errors = shallowRef<Record<string, string>>({})
const trouble = ref('')
const tried = ref(false)
const busy = ref(false)

async function send() {
  tried.value = true
  trouble.value = ''
  const order = {
    customer: known.value ? { id: known.value.customer.id } : { name: values.customer, contact: values.contact },
    bike: {
      ...(known.value ? { id: known.value.bike.id } : { name: values.bike, frameNumber: values.frameNumber }),
      ...(values.frameKind ? { frameKind: values.frameKind } : {}),
    },
    tag: values.tag,
    promisedAt: promisedAt(),
    complaint: values.complaint,
    parts: without.value ? null : read.value.is === 'parts' ? read.value.parts : undefined,
    sameParts: sameParts.value,
  }
  const checked = TakeIn.safeParse(order)
  if (!checked.success) {
    errors.value = byField(fieldsOf(order))
    trouble.value = 'Something is missing or does not fit: see the marked lines'
    return
  }
  errors.value = {}
  busy.value = true
  const asked = await ask<{ number: number }>('/api/jobs', { method: 'POST', body: checked.data })
  busy.value = false
  if (asked.is === 'done')
    return navigateTo(without.value ? `/jobs/${asked.value.number}` : `/jobs/${asked.value.number}/rear`)
  trouble.value = asked.is === 'offline' ? OFFLINE_WORDS : asked.message
  if (asked.is === 'refused') errors.value = byField(asked.issues)
}

/** A union's own words say little: each side is asked by its own schema. */
function fieldsOf(order: Record<string, unknown>) {
  return Object.entries(TakeIn.shape).flatMap(([name, schema]) => {
    const side: z.ZodType = schema instanceof z.ZodUnion ? (schema.options[known.value ? 0 : 1] as z.ZodType) : schema
    const found = side.safeParse(order[name])
    return found.success
      ? []
      : issuesOf(found.error).map(i => ({
          field: i.field === 'body' ? name : `${name}.${i.field}`,
          message: i.message,
        }))
  })
}
const byField = (issues: { field: string; message: string }[]) =>
  Object.fromEntries(issues.map(i => [i.field, i.message]))
const ids = { complaint: useId(), promised: useId() }
</script>

<template>
  <div>
    <PageHead title="Take a bike in" />
    <main class="mx-auto max-w-6xl px-4 py-5 sm:px-6">
      <form
        class="grid gap-x-10 gap-y-6 lg:grid-cols-[1fr_1.25fr]"
        novalidate
        data-test="take-in-form"
        @submit.prevent="send"
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
              <TextField v-model="values.customer" label="Customer" :error="errors['customer.name']" />
              <TextField v-model="values.contact" label="Contact" :error="errors['customer.contact']" />
              <TextField v-model="values.bike" label="Bike" :error="errors['bike.name']" />
              <TextField v-model="values.frameNumber" label="Frame number" mono :error="errors['bike.frameNumber']" />
            </div>
            <p class="small">
              Was it here before? <NuxtLink to="/" class="underline">Find it on the Floor</NuxtLink> and it starts from
              its last sheet.
            </p>
          </template>
          <p v-if="errors.bike || errors.customer" class="stopped">{{ errors.bike ?? errors.customer }}</p>
          <label class="label"
            >Kind of frame, as housing goes<select v-model="values.frameKind" class="field" data-test="frame-kind">
              <option value="">{{ known ? 'as before' : 'not noted' }}</option>
              <option v-for="f in FRAME_KINDS" :key="f" :value="f">{{ FRAME_WORDS[f] }}</option>
            </select></label
          >
          <div class="grid gap-4 sm:grid-cols-[7rem_1fr]">
            <TextField v-model="values.tag" label="Tag" mono :error="errors.tag" />
            <div>
              <label class="label" :for="ids.promised">Promised</label>
              <input
                :id="ids.promised"
                v-model="values.promised"
                type="datetime-local"
                class="field figure"
                :aria-invalid="errors.promisedAt ? 'true' : undefined"
                data-test="promised"
              />
              <p v-if="errors.promisedAt" class="mt-1 text-sm font-semibold text-stop">{{ errors.promisedAt }}</p>
            </div>
          </div>
          <div class="flex flex-wrap gap-2">
            <button
              v-for="p in promises"
              :key="p.local"
              type="button"
              class="also"
              :class="{ 'bg-act! text-act-ink!': values.promised === p.local }"
              @click="values.promised = p.local"
            >
              {{ p.words }}
            </button>
          </div>
          <div>
            <label class="label" :for="ids.complaint">What the customer says</label>
            <textarea
              :id="ids.complaint"
              v-model="values.complaint"
              class="field min-h-24 py-2"
              :aria-invalid="errors.complaint ? 'true' : undefined"
              data-test="complaint"
            />
            <p v-if="errors.complaint" class="mt-1 text-sm font-semibold text-stop">{{ errors.complaint }}</p>
          </div>
        </section>
        <section>
          <p v-if="sameParts" class="mb-3 border-l-[6px] border-clean pl-3 font-semibold">
            Same parts as on its last sheet: Ocho starts from what it knew then.
          </p>
          <p class="mb-2 flex flex-wrap justify-between gap-2">
            <button
              type="button"
              class="also min-h-11!"
              :class="{ 'bg-act! text-act-ink!': without }"
              :aria-pressed="without"
              data-test="no-derailleur"
              @click="
                without = !without
                measuring = false
              "
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
          <MeasuringAid
            :parts="partsHere"
            :catalogue="catalogue"
            use-words="These are its parts"
            @use="
              change => {
                typed = withMeasured(typed, change)
                measuring = false
              }
            "
          />
        </section>
        <div class="flex flex-wrap items-center gap-4 border-t border-rule pt-4 lg:col-span-2">
          <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
          <button class="act ml-auto min-w-56" :disabled="busy">{{ busy ? 'Taking it in' : 'Take it in' }}</button>
        </div>
      </form>
    </main>
  </div>
</template>
