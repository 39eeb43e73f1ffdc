<script setup lang="ts">
import { Role } from '#core/chapter/ids'
import { Done, Made } from '#core/http/answers'
import { schoolsOf, type SchoolChoice } from '#core/procedure/schools'
import { DeviceView, NewPerson } from '#core/http/people'

useHead({ title: 'Shop · Ocho' })
const session = useSession()
const zone = computed(() => session.now?.shop.zone ?? 'UTC')
const {
  data: devices,
  error,
  refresh,
} = await useRead(DeviceView.array(), '/api/shop/devices', { immediate: session.now?.person?.role === 'owner' })
const trouble = ref('')

const owner = computed(() => session.now?.person?.role === 'owner')
const { standards } = await useCatalogue()
const whose = ref<'shop' | 'me'>(owner.value ? 'shop' : 'me')
const inForce = computed(
  () =>
    schoolsOf(standards.value, whose.value === 'me' ? session.now?.schools.person : null, session.now?.schools.shop)
      .ids,
)
const schoolTrouble = ref('')
const schoolKept = ref(false)
/** What is on its way to the server: a second pick adds to it, and they are sent one after the other. */
const wanted = shallowRef<SchoolChoice | null>(null)
const chosen = computed(() => wanted.value ?? session.now?.schools[whose.value === 'me' ? 'person' : 'shop'] ?? {})
let sent: Promise<unknown> = Promise.resolve()
watch(whose, () => {
  wanted.value = null
  schoolKept.value = false
})
async function choose(choice: SchoolChoice) {
  wanted.value = choice
  schoolKept.value = false
  const body = { of: whose.value, choice }
  const asked = sent.then(() => asOwner(() => ask(Done, '/api/shop/schools', { method: 'POST', body })))
  sent = asked
  schoolTrouble.value = sayTrouble(await asked)
  await session.load()
  if (wanted.value !== choice) return
  wanted.value = null
  schoolKept.value = !schoolTrouble.value
}

async function revoke(device: DeviceView) {
  const asked = await asOwner(() => ask(Done, `/api/shop/devices/${device.id}`, { method: 'DELETE' }))
  trouble.value = sayTrouble(asked)
  await refresh()
}

const renewing = ref<string | null>(null)
const said = ref('')
const changing = ref<string | null>(null)
/** What was just done with somebody, said until something else is. */
async function told(words: string) {
  renewing.value = null
  changing.value = null
  said.value = words
  await session.load()
}

const initial: { name: string; role: Role; pin: string } = { name: '', role: 'mechanic', pin: '' }
const adding = useContractForm({
  initial,
  schema: NewPerson,
  send: value => asOwner(() => ask(Made, '/api/shop/people', { method: 'POST', body: value })),
  done: async (_, { name, role }) => {
    form.reset()
    await told(`${name} was added as ${role}.`)
  },
})
const { form, trouble: formTrouble } = adding
const ROLES = Role.options.map(value => ({ value, words: value }))
const WHOSE = computed(() => [
  ...(owner.value ? [{ value: 'shop' as const, words: 'For the shop' }] : []),
  { value: 'me' as const, words: session.now?.person?.name ?? 'For me' },
])
</script>

<template>
  <div>
    <PageHead title="Shop" />
    <main class="mx-auto grid max-w-[1240px] grid-cols-1 gap-10 p-6 md:grid-cols-2 lg:grid-cols-3">
      <section>
        <h2 class="text-lg font-bold">People</h2>
        <ul class="mt-2 border-t border-rule">
          <li v-for="p in session.now?.people" :key="p.id" class="border-b border-rule">
            <div class="flex min-h-11 flex-wrap items-center justify-between gap-x-3">
              <span class="font-semibold">{{ p.name }}</span>
              <span class="flex flex-wrap items-center gap-1 text-soft"
                >{{ p.role
                }}<button
                  v-if="owner"
                  type="button"
                  class="quiet"
                  :aria-expanded="changing === p.id"
                  :data-test="`change-${p.name}`"
                  @click="changing = changing === p.id ? null : p.id"
                >
                  Change</button
                ><button
                  v-if="owner"
                  type="button"
                  class="quiet"
                  :aria-expanded="renewing === p.id"
                  :data-test="`renew-${p.name}`"
                  @click="renewing = renewing === p.id ? null : p.id"
                >
                  New PIN
                </button></span
              >
            </div>
            <ChangePersonForm v-if="changing === p.id" :person="p" @done="told" />
            <NewSecretsForm
              v-if="renewing === p.id"
              :person="p"
              @done="told(`${p.name} has new ones: the old no longer count.`)"
            />
          </li>
        </ul>
        <p v-if="said" class="mt-2 font-semibold text-clean" role="status" data-test="people-said">{{ said }}</p>
        <form
          v-if="owner"
          class="mt-6 grid gap-4"
          novalidate
          data-test="new-person"
          @submit.prevent="form.handleSubmit()"
        >
          <h3 class="font-bold">Add a person</h3>
          <FormLine :of="adding" name="name" label="Name" />
          <form.Field v-slot="{ field, state }" name="role">
            <div>
              <p class="label">Role</p>
              <ChoiceRow
                :model-value="state.value"
                label="Role"
                :choices="ROLES"
                test="role"
                @update:model-value="r => r && field.handleChange(r)"
              />
            </div>
          </form.Field>
          <FormLine :of="adding" name="pin" label="PIN" type="password" inputmode="numeric" hint="4 to 8 digits" />
          <p v-if="formTrouble" class="stopped" role="alert">{{ formTrouble }}</p>
          <button class="act justify-center">Add</button>
        </form>
      </section>
      <div v-if="owner" class="grid content-start gap-10">
        <ReachPanel :zone="zone" @joined="refresh()" />
        <section>
          <h2 class="text-lg font-bold">Devices signed in</h2>
          <p v-if="error" class="stopped mt-2" role="alert">{{ error.data?.data?.message ?? OFFLINE_WORDS }}</p>
          <p v-if="trouble" class="stopped mt-2" role="alert">{{ trouble }}</p>
          <ul class="mt-2 border-t border-rule">
            <li
              v-for="d in devices"
              :key="d.id"
              class="flex items-center justify-between gap-3 border-b border-rule py-1"
            >
              <span
                ><b>{{ d.device }}</b><span v-if="d.current"> (this one)</span
                ><span class="small block"
                  >{{ d.person ?? 'nobody' }}, signed in {{ sayTime(d.signedInAt, zone) }}</span
                ></span
              >
              <button v-if="!d.current" type="button" class="quiet text-stop" @click="revoke(d)">Sign out</button>
            </li>
          </ul>
        </section>
        <NightsPanel :zone="zone" />
        <AuditTrail :zone="zone" />
      </div>
      <section>
        <h2 class="text-lg font-bold">Schools</h2>
        <ChoiceRow v-model="whose" class="mt-2" label="Whose schools" :choices="WHOSE" :columns="2" test="schools" />
        <SchoolPick class="mt-3" :chosen="chosen" :in-force="inForce" @choose="choose" />
        <p v-if="schoolTrouble" class="stopped mt-2" role="alert">{{ schoolTrouble }}</p>
        <p v-else-if="schoolKept" class="mt-2 font-semibold text-clean" role="status" data-test="schools-kept">
          Kept: it counts from the next move on.
        </p>
      </section>
    </main>
    <ConfirmOwner />
  </div>
</template>
