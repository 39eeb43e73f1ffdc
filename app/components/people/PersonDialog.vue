<!-- Who works: a name, and a PIN when it is not fresh. Also the dim ground and signing the device out. -->
<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import type { PersonView } from '#core/http/session'
import { countOf } from '#core/quantity/words'

const session = useSession()
const habits = useHabits()
const { flip } = useTheme()
const emit = defineEmits<{ close: [] }>()
const chosen = shallowRef<PersonView | null>(null)
const pin = ref('')
const trouble = ref('')
const busy = ref(false)

void session.load()

async function choose(person: PersonView & { fresh: boolean }) {
  if (session.offline) {
    trouble.value = 'Names can be changed when the server can be reached again'
    return
  }
  trouble.value = ''
  if (!person.fresh) {
    chosen.value = person
    return
  }
  await enter(person)
}

async function enter(person: PersonView, withPin?: string) {
  busy.value = true
  const asked = await session.choose(person.id, withPin)
  busy.value = false
  if (asked.is === 'done') emit('close')
  else {
    pin.value = ''
    chosen.value = person
    trouble.value = asked.is === 'offline' ? OFFLINE_WORDS : asked.message
  }
}

async function leave() {
  const waiting = await session.signOut()
  if (waiting > 0)
    trouble.value = `${countOf(waiting, 'tap waits', 'taps wait')} to be sent: open that bench with the server in reach, then sign out`
  else if (waiting < 0) trouble.value = OFFLINE_WORDS
  else await navigateTo('/sign-in', { external: true })
}
</script>

<template>
  <Dialog :open="true" class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 bg-mat/70" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center overflow-y-auto p-4 pt-16">
      <DialogPanel class="w-full max-w-md rounded-md bg-panel p-5 text-ink">
        <DialogTitle class="text-xl font-bold">{{ chosen ? chosen.name : 'Who works here now?' }}</DialogTitle>
        <p v-if="trouble" class="stopped mt-3" role="alert">{{ trouble }}</p>
        <PinPad v-if="chosen" v-model="pin" class="mt-4" :busy="busy" @done="enter(chosen, pin)" />
        <ul v-else class="mt-3 divide-y divide-rule">
          <li v-for="p in session.now?.people" :key="p.id">
            <button
              type="button"
              class="flex min-h-14 w-full items-center justify-between text-left text-lg"
              :disabled="busy"
              :data-test="`name-${p.name}`"
              @click="choose(p)"
            >
              <span :class="{ 'font-bold': p.id === session.now?.person?.id }">{{ p.name }}</span>
              <span class="small">{{ p.role }}{{ p.fresh ? '' : ', PIN' }}</span>
            </button>
          </li>
        </ul>
        <div class="mt-4 flex flex-wrap gap-3 border-t border-rule pt-4">
          <button type="button" class="quiet" @click="flip">Light or dim</button>
          <button
            type="button"
            class="quiet"
            :aria-pressed="habits.tick.value === 'on'"
            data-test="habit-tick"
            @click="habits.tick.value = habits.tick.value === 'on' ? 'off' : 'on'"
          >
            Tick {{ habits.tick.value }}
          </button>
          <button
            type="button"
            class="quiet"
            :aria-pressed="habits.awake.value === 'on'"
            data-test="habit-awake"
            @click="habits.awake.value = habits.awake.value === 'on' ? 'off' : 'on'"
          >
            Screen awake {{ habits.awake.value }}
          </button>
          <NuxtLink v-if="session.now?.person" to="/day" class="quiet" data-test="my-day">My day</NuxtLink>
          <NuxtLink v-if="session.now?.person" to="/devices" class="quiet" data-test="devices">Devices</NuxtLink>
          <NuxtLink to="/recalls" class="quiet">Recalls</NuxtLink>
          <NuxtLink to="/practice" class="quiet" data-test="practice">Practice</NuxtLink>
          <NuxtLink v-if="session.now?.person?.role === 'owner'" to="/month" class="quiet" data-test="to-month"
            >Month</NuxtLink
          >
          <NuxtLink to="/standards" class="quiet">Standards</NuxtLink>
          <NuxtLink v-if="session.now?.person" to="/shop" class="quiet">{{
            session.now.person.role === 'owner' ? 'Shop' : 'Schools'
          }}</NuxtLink>
          <button type="button" class="quiet" @click="leave">Sign this device out</button>
          <button type="button" class="quiet ml-auto" @click="emit('close')">Close</button>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
