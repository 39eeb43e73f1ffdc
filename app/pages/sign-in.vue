<script setup lang="ts">
import { Done } from '#core/http/answers'
import { DoorView, SignIn } from '#core/http/people'

useHead({ title: 'Sign in · Ocho' })
const route = useRoute()
const { data: door, error: doorError } = await useRead(DoorView, '/api/sign-in')
if (door.value?.firstRun) await navigateTo('/first-run')

const signIn = useContractForm({
  initial: { shop: door.value?.demo?.shop ?? '', name: '', password: '' },
  schema: SignIn,
  send: value => ask(Done, '/api/sign-in', { method: 'POST', body: value }),
  // a full load, so that nothing of another session stays in memory
  done: () => navigateTo(backTo(), { external: true }),
})

const { form, trouble } = signIn
// a device that was signed out from afar lands here: it forgets what it keeps
const session = useSession()
onMounted(() => session.load())

/** Only a path of our own: never to another site. */
function backTo(): string {
  const to = String(route.query.to ?? '/')
  // a backslash or a control character is read as a slash, or as nothing, by browsers
  if (!to.startsWith('/') || [...to].some(c => c < ' ' || c === '\\')) return '/'
  const { origin } = useRequestURL()
  const url = URL.canParse(to, origin) ? new URL(to, origin) : null
  return url?.origin === origin ? `${url.pathname}${url.search}${url.hash}` : '/'
}

function fill(person: { name: string; password: string | null }) {
  form.setFieldValue('name', person.name)
  form.setFieldValue('password', person.password ?? '')
}
</script>

<template>
  <main class="mx-auto grid min-h-dvh max-w-4xl content-center gap-8 p-5 md:grid-cols-2 md:gap-12">
    <section>
      <div class="flex items-center gap-3">
        <TheMark />
        <h1 class="text-3xl font-bold">Ocho</h1>
      </div>
      <p class="mt-3 text-lg">Sign this device in for your shop. At the bench you only tap your name.</p>
      <p v-if="doorError" class="stopped mt-4" role="alert">{{ OFFLINE_WORDS }}</p>
      <form class="mt-6 grid gap-4" novalidate data-test="sign-in" @submit.prevent="form.handleSubmit()">
        <FormLine :of="signIn" name="shop" label="Shop code" mono autocomplete="organization" />
        <FormLine :of="signIn" name="name" label="Name" autocomplete="username" />
        <FormLine :of="signIn" name="password" label="Password" type="password" autocomplete="current-password" />
        <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
        <form.Subscribe v-slot="{ isSubmitting }">
          <button class="act justify-center" :disabled="isSubmitting">
            {{ isSubmitting ? 'Signing in' : 'Sign in' }}
          </button>
        </form.Subscribe>
      </form>
    </section>
    <section v-if="door?.demo" data-test="demo-people">
      <h2 class="text-lg font-bold">The demo shop</h2>
      <p class="small mt-1">Invented people; anyone can read these. Tap one with a password to fill the form.</p>
      <table class="mt-4 w-full border-collapse text-left">
        <thead>
          <tr class="small border-b border-rule">
            <th class="py-2 font-normal">Name</th>
            <th class="font-normal">Password</th>
            <th class="font-normal">PIN</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in door.demo.people" :key="p.name" class="border-b border-rule">
            <td class="py-1">
              <button v-if="p.password" type="button" class="quiet -ml-2 underline" @click="fill(p)">
                {{ p.name }}
              </button>
              <span v-else class="inline-flex min-h-11 items-center">{{ p.name }}</span>
              <span class="small block sm:ml-1 sm:inline">{{ p.role }}</span>
            </td>
            <td class="figure text-sm">{{ p.password ?? 'at the bench only' }}</td>
            <td class="figure text-sm">{{ p.pin }}</td>
          </tr>
        </tbody>
      </table>
    </section>
  </main>
</template>
