<script setup lang="ts">
import { NumberOfJob } from '#core/http/answers'
import { DoorView, FoundBike, TakeIn } from '#core/http/door'
import { isSaid, SAID_AT_DOOR, withPhrase } from '#core/procedure/history'
import { nameBySeen, UNSEEN, type Seen } from '#core/job/seen'
import { fromSixteenths } from '#core/quantity/turns'
import type { FrameKind } from '#core/standards/frames'
import { typedFromParts } from '#core/rear/typedParts'
import { arrivesWith, noteOf, type Setup } from '#core/travel/setup'
import type { Brought } from '~/components/take-in/WhoBrings.vue'

useHead({ title: 'At the door · Ocho' })
const route = useRoute()
const { catalogue, parts: partsHere } = await useCatalogue()
const { data: door } = await useRead(DoorView, '/api/door')
const session = useSession()
const zone = computed(() => session.now?.shop.zone ?? 'UTC')

/** A customer known here, and the bike of theirs where that is known too. */
const brought = shallowRef<Brought | null>(null)
const known = computed(() => brought.value?.bike ?? null)
const lastSheet = computed(() => known.value?.last?.sheet ?? null)

const seen = ref<Seen>(UNSEEN)
const frameKind = ref<FrameKind | null>(null)
const used = computed(() => door.value?.used ?? {})
const gears = useDrivetrain({ seen, used, catalogue, start: null })
/** Parts as they left here, to see whether anything was changed. */
const before = ref('')
/** One sprocket: a hub gear or a single speed. */
const without = computed(() => seen.value.sprockets === 1)
const compared = () => JSON.stringify({ ...gears.typed.value, turnsOut: '' })
const sameParts = computed(() =>
  without.value
    ? lastSheet.value?.parts === null
    : Boolean(lastSheet.value?.parts) && !gears.open.value && compared() === before.value,
)

/** A bike that was here starts as it was: what has changed is touched. */
function bring(to: Brought) {
  brought.value = to
  form.setFieldValue('customer.name', to.customer.name)
  const sheet = to.bike?.last?.sheet ?? null
  const many = sheet ? (sheet.parts?.cassette.teeth.length ?? 1) : null
  frameKind.value = to.bike?.bike.frameKind ?? null
  gears.restart(sheet?.parts ? typedFromParts(sheet.parts, fromSixteenths(sheet.barrelSixteenths)) : null)
  before.value = compared()
  seen.value = { ...(to.bike?.bike.seen ?? UNSEEN), ...(many ? { sprockets: many } : {}) }
}
/** It is in the house: nothing of it is taken in. */
function toJob(number: number) {
  draft.forget()
  void navigateTo(`/jobs/${number}`)
}
function someoneElse() {
  brought.value = null
  gears.restart(null)
  seen.value = UNSEEN
  frameKind.value = null
  form.setFieldValue('customer.name', '')
}

const { promises, usual, takes, proposal } = useDoorPromise(door, zone, () => typedOrder.value.complaint)

/**
 * A known bike and customer are named by id, new ones described: each side is asked by its own schema, whose words say
 * more.
 */
const Order = () =>
  TakeIn.extend({
    customer: TakeIn.shape.customer.options[brought.value ? 0 : 1]!,
    bike: TakeIn.shape.bike.options[known.value ? 0 : 1]!,
  })
const order = useContractForm({
  initial: {
    customer: { name: '', contact: '' },
    bike: { name: '', frameNumber: '' },
    tag: door.value?.nextTag ?? '',
    promised: usual,
    complaint: '',
  },
  schema: Order,
  read: values => ({
    customer: brought.value ? { id: brought.value.customer.id } : values.customer,
    bike: {
      ...(known.value
        ? { id: known.value.bike.id }
        : { ...values.bike, name: values.bike.name.trim() || nameBySeen(seen.value) }),
      ...(frameKind.value ? { frameKind: frameKind.value } : {}),
    },
    tag: values.tag,
    promisedAt: fromShopClock(values.promised, zone.value),
    complaint: values.complaint,
    parts:
      without.value || gears.open.value ? null : gears.read.value.is === 'parts' ? gears.read.value.parts : undefined,
    sameParts: sameParts.value,
    seen: seen.value,
    ...(code.value ? { note: noteOf(code.value) } : {}),
  }),
  line: field => (field === 'promisedAt' ? 'promised' : field),
  send: value => ask(NumberOfJob, '/api/jobs', { method: 'POST', body: value, once: true }),
  done: async ({ number }) => {
    draft.forget()
    // the rear and the note went with the order
    if (code.value) for (const event of arrivesWith(code.value)) await useOutbox().put(number, event, 1)
    return navigateTo(without.value || gears.open.value ? `/jobs/${number}` : `/jobs/${number}/rear`)
  },
})
const { form, trouble, server } = order

/**
 * A setup that the bike brought with it: what it says of the rear fills the form, the rest follows once the job is
 * there.
 */
const code = shallowRef<Setup | null>(null)
const reading = ref(false)
function start(from: Setup) {
  code.value = from
  reading.value = false
  if (!known.value && !form.state.values.bike.name.trim()) form.setFieldValue('bike.name', from.bike)
  gears.restart(from.rear ? typedFromParts(from.rear, from.rear.barrel.turnsOut) : null)
  gears.open.value = false
  const wheels = Object.fromEntries(from.brakes.map(b => [b.parts.brake, b.parts.kind]))
  seen.value = { ...seen.value, ...wheels, sprockets: from.rear ? from.rear.cassette.teeth.length : 1 }
}
const typedOrder = form.useStore(s => s.values)
const nameErrors = form.useStore(s => s.fieldMeta['customer.name']?.errors ?? [])
const past = form.useStore(s => inThePast(fromShopClock(s.values.promised, zone.value)))
const tried = form.useStore(s => s.submissionAttempts > 0)
const otherTime = ref(false)
const apart = computed(() => otherTime.value || !promises.value.some(p => p.local === typedOrder.value.promised))
// figures that do not read are shown where they can be put right
watch(trouble, words => {
  if (words && !without.value && !gears.open.value && gears.read.value.is === 'wrong') gears.way.value = 'figures'
})

/** What was typed and touched survives a reload. */
const draft = useDoorDraft({
  read: () => ({
    order: typedOrder.value,
    seen: seen.value,
    frameKind: frameKind.value,
    typed: gears.typed.value,
    open: gears.open.value,
    byHand: gears.byHand.value,
    before: before.value,
    brought: brought.value,
    code: code.value,
  }),
  restore: was => {
    form.setFieldValue('customer', was.order.customer)
    form.setFieldValue('bike', was.order.bike)
    form.setFieldValue('complaint', was.order.complaint)
    if (was.order.promised) form.setFieldValue('promised', was.order.promised)
    if (was.order.tag) form.setFieldValue('tag', was.order.tag)
    brought.value = was.brought
    seen.value = was.seen
    frameKind.value = was.frameKind
    before.value = was.before
    gears.restart(was.typed)
    gears.open.value = was.open
    gears.byHand.value = was.byHand
    code.value = was.code
  },
})
onMounted(async () => {
  // the Floor's search leads here with a bike in hand: it comes before what was left lying
  const wanted = { bike: String(route.query.bike ?? ''), q: String(route.query.q ?? '') }
  if (!wanted.bike || !wanted.q) return draft.resume()
  const asked = await ask(FoundBike.array(), `/api/bikes?q=${encodeURIComponent(wanted.q)}`)
  const bike = asked.is === 'done' ? asked.value.find(f => f.bike.id === wanted.bike) : undefined
  if (bike) bring({ customer: bike.customer, bike })
  draft.begin()
})
const summary = computed(() =>
  [
    known.value?.bike.name ?? (typedOrder.value.bike.name.trim() || nameBySeen(seen.value)),
    typedOrder.value.tag ? `tag ${typedOrder.value.tag}` : '',
    promises.value.find(p => p.local === typedOrder.value.promised)?.words.toLowerCase() ?? '',
  ]
    .filter(Boolean)
    .join(', '),
)
</script>

<template>
  <div class="door">
    <PageHead title="At the door" />
    <form class="door-form" novalidate data-test="take-in-form" @submit.prevent="form.handleSubmit()">
      <main class="door-body">
        <section class="grid content-start gap-3" aria-label="Who, what and when">
          <div
            v-if="brought"
            class="flex items-start justify-between gap-2 border-l-[6px] border-ink pl-3"
            data-test="known"
          >
            <div class="leading-tight">
              <p class="text-lg font-bold">{{ known ? known.bike.name : 'Another bike' }}</p>
              <p>{{ brought.customer.name }}{{ brought.customer.contact ? `, ${brought.customer.contact}` : '' }}</p>
              <p v-if="known" class="small">
                {{ known.bike.frameNumber ? `frame ${known.bike.frameNumber}, ` : ''
                }}{{
                  known.last
                    ? `last sheet ${sayWhen(known.last.closedAt, zone)}, job ${known.last.number}`
                    : 'no sheet yet'
                }}
              </p>
              <p v-if="sameParts" class="font-semibold text-clean">
                Same parts as on its last sheet: Ocho starts from what it knew then.
              </p>
            </div>
            <button type="button" class="quiet" data-test="someone-else" @click="someoneElse">Someone else</button>
          </div>
          <p v-if="code" class="border-l-[6px] border-ink pl-3" data-test="by-code">
            Starts from its code: <b>{{ code.bike }}</b>, left {{ sayDay(code.left) }}.
          </p>
          <LazyFromCode v-if="reading" @take="start" @close="reading = false" />
          <button
            v-else
            type="button"
            class="quiet justify-self-start underline"
            data-test="it-has-code"
            @click="reading = true"
          >
            It brings its setup in a square code
          </button>
          <WhoBrings
            v-if="!brought"
            :model-value="typedOrder.customer.name"
            :zone="zone"
            :error="firstError(nameErrors) ?? server['customer.name'] ?? null"
            @update:model-value="form.setFieldValue('customer.name', $event)"
            @pick="bring"
            @here="toJob"
          />
          <form.Field name="customer.name"><template #default /></form.Field>
          <div v-if="!known" class="grid grid-cols-2 gap-x-3 gap-y-2">
            <FormLine v-if="!brought" :of="order" name="customer.contact" label="Phone" inputmode="tel" />
            <FormLine :of="order" name="bike.name" label="Bike" :placeholder="nameBySeen(seen)" />
            <FormLine :of="order" name="bike.frameNumber" label="Frame number" mono />
            <FormLine v-if="!brought" :of="order" name="tag" label="Tag, the next free one" mono />
          </div>
          <FormLine v-if="brought" :of="order" name="tag" label="Tag, the next free one" mono class="max-w-48" />
          <p v-if="server.bike || server.customer" class="stopped">{{ server.bike ?? server.customer }}</p>
          <div>
            <FormLine :of="order" name="complaint" label="What is wrong, in their words" long short test="complaint" />
            <div class="mt-1.5 flex flex-wrap gap-1.5" role="group" aria-label="Often said">
              <button
                v-for="p in SAID_AT_DOOR"
                :key="p"
                type="button"
                class="also min-h-11! border-rule! px-2.5! text-[0.875rem]"
                :class="{ chosen: isSaid(typedOrder.complaint, p) }"
                :aria-pressed="isSaid(typedOrder.complaint, p)"
                @click="form.setFieldValue('complaint', withPhrase(typedOrder.complaint, p))"
              >
                {{ p }}
              </button>
            </div>
          </div>
          <div>
            <p class="label">Ready by</p>
            <div class="flex flex-wrap gap-1.5">
              <button
                v-for="p in promises"
                :key="p.local"
                type="button"
                class="also min-h-11! px-2.5! text-[0.9375rem]"
                :class="{ chosen: typedOrder.promised === p.local }"
                :aria-pressed="typedOrder.promised === p.local"
                @click="form.setFieldValue('promised', p.local)"
              >
                {{ p.words }}
              </button>
              <button
                type="button"
                class="also min-h-11! px-2.5! text-[0.9375rem]"
                :aria-expanded="apart"
                data-test="other-time"
                @click="otherTime = !otherTime"
              >
                Other
              </button>
            </div>
          </div>
          <div v-show="apart">
            <FormLine :of="order" name="promised" label="Promised" type="datetime-local" mono test="promised" />
          </div>
          <p v-if="typedOrder.complaint" class="small" data-test="takes">
            Such a job takes {{ Math.round(takes.median) }} min{{
              takes.jobs ? ` here (${takes.jobs})` : ', as usual'
            }}, three of four under {{ Math.round(takes.most) }}.
            <template v-if="!proposal">None of these times can be kept at this pace: promise a later one.</template>
            <button
              v-else-if="proposal.local > typedOrder.promised"
              type="button"
              class="inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
              data-test="take-proposal"
              @click="form.setFieldValue('promised', proposal.local)"
            >
              {{ proposal.words }} is the first that can be kept: take it
            </button>
            <template v-else>{{ proposal.words }} is the first that can be kept.</template>
          </p>
          <p v-if="past" class="stopped" role="status" data-test="past">That time has passed: is it meant?</p>
        </section>
        <section class="grid content-start gap-3" aria-label="What the eye can count">
          <LookPick v-model="seen" v-model:frame-kind="frameKind" />
          <p v-if="without" class="mat p-3 text-lg" data-test="no-derailleur">
            No derailleur at the back: the benches for hub, brakes and cables are there, the rear bench is not.
          </p>
          <GearsPick
            v-else
            :of="gears"
            :seen="seen"
            :used="used"
            :catalogue="catalogue"
            :parts="partsHere"
            :show-errors="tried"
            :counted-words="lastSheet ? 'as it left here' : 'counted on the bike'"
          />
        </section>
      </main>
      <footer class="door-foot">
        <p class="min-w-0 text-soft max-sm:hidden">{{ summary }}</p>
        <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
        <form.Subscribe v-slot="{ isSubmitting }">
          <button class="act ml-auto max-sm:w-full sm:min-w-64" :disabled="isSubmitting">
            {{ isSubmitting ? 'Taking it in' : 'Hang it on the rail' }}
          </button>
        </form.Subscribe>
      </footer>
    </form>
  </div>
</template>

<style scoped>
.door {
  display: flex;
  flex-direction: column;
  min-height: 100dvh;
}
.door-form {
  display: flex;
  flex-direction: column;
  flex: 1;
}
.door-body {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 420px) minmax(0, 1fr);
  gap: 1.25rem 2rem;
  width: 100%;
  max-width: 1400px;
  margin: 0 auto;
  padding: 0.875rem 1.5rem 1rem;
}
/* the way on is always in sight */
.door-foot {
  position: sticky;
  bottom: 0;
  z-index: 30;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 1rem;
  padding: 0.375rem 1.5rem;
  border-top: 1px solid var(--rule);
  background: var(--panel);
}
@media (max-width: 1000px) {
  .door-body {
    grid-template-columns: minmax(0, 1fr);
    padding: 0.75rem 1rem 1rem;
  }
  .door-foot {
    padding: 0.375rem 1rem;
  }
}
</style>
