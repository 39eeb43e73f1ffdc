<!-- Where a device lands that scanned the second square: one touch, and it is the shop's. -->
<script setup lang="ts">
import { Done } from '#core/http/answers'
import { Join } from '#core/http/joining'

useHead({ title: 'Join · Ocho' })
const joining = useContractForm({
  initial: { code: '', device: '' },
  schema: Join,
  send: value => ask(Done, '/api/join', { method: 'POST', body: value }),
  // a full load, so that nothing of another session stays in memory
  done: () => navigateTo('/', { external: true }),
})
const { form, trouble } = joining
const scanned = ref(false)
/** Only over HTTPS does a browser keep what is tapped and lend its camera. */
const plain = ref(false)
const session = useSession()
const signedIn = ref<string | null>(null)
onMounted(async () => {
  plain.value = !globalThis.isSecureContext
  const code = decodeURIComponent(location.hash.slice(1))
  scanned.value = Join.shape.code.safeParse(code).success
  if (scanned.value) {
    form.setFieldValue('code', code)
    history.replaceState(history.state, '', '/join') // a code is not left in an address
  }
  if (await session.load()) signedIn.value = session.now?.shop.name ?? null
})
</script>

<template>
  <main class="mx-auto grid min-h-dvh max-w-lg content-center gap-5 p-5">
    <div class="flex items-center gap-3">
      <TheMark />
      <h1 class="text-3xl font-bold">Join this device</h1>
    </div>
    <p class="text-lg">It then belongs to the shop: at the bench you touch your name and type your PIN.</p>
    <p v-if="plain" class="stopped" role="alert" data-test="join-plain">
      This page came over a plain connection: nothing tapped would be kept while the server is away, and the camera
      stays shut. Open it by the address that begins with https.
    </p>
    <p v-if="signedIn" class="font-semibold" data-test="join-already">
      It is signed in for {{ signedIn }} already. <NuxtLink to="/" class="underline">To the Floor</NuxtLink>
    </p>
    <form class="grid gap-4" novalidate data-test="join" @submit.prevent="form.handleSubmit()">
      <FormLine
        :of="joining"
        name="code"
        label="Code"
        mono
        autocomplete="off"
        autocapitalize="characters"
        :hint="scanned ? 'from the square' : 'eight letters and digits, under the square on the owner’s screen'"
      />
      <FormLine
        :of="joining"
        name="device"
        label="What you call it"
        hint="stand 1, the door, … or nothing"
        autocomplete="off"
      />
      <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
      <form.Subscribe v-slot="{ isSubmitting }">
        <button class="act justify-center" :disabled="isSubmitting" data-test="join-now">
          {{ isSubmitting ? 'Joining' : 'Join' }}
        </button>
      </form.Subscribe>
    </form>
  </main>
</template>
