<!-- Asks an owner for the password once more: a tablet that was left unlocked is no owner's hand. -->
<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { Done } from '#core/http/answers'
import { ConfirmOwner } from '#core/http/people'

const emit = defineEmits<{ typed: []; close: [] }>()
const session = useSession()
const confirming = useContractForm({
  initial: { secret: '' },
  schema: ConfirmOwner,
  send: value => ask(Done, '/api/session/confirm', { method: 'POST', body: value }),
  done: () => emit('typed'),
})
const { form, trouble } = confirming
</script>

<template>
  <Dialog :open="true" class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 bg-mat/70" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center overflow-y-auto p-4 pt-16">
      <DialogPanel class="w-full max-w-md rounded-md bg-panel p-5 text-ink">
        <DialogTitle class="text-xl font-bold">Your password once more</DialogTitle>
        <p class="mt-1 text-soft">
          An owner’s act: it is asked where it was not typed within a quarter of an hour. Whoever has no password types
          the PIN.
        </p>
        <form class="mt-3 grid gap-3" novalidate @submit.prevent="form.handleSubmit()">
          <FormLine
            :of="confirming"
            name="secret"
            :label="`Password of ${session.now?.person?.name ?? 'the owner'}`"
            type="password"
          />
          <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
          <button class="act justify-center" data-test="confirm-owner">Go on</button>
          <button type="button" class="quiet" @click="emit('close')">Not now</button>
        </form>
      </DialogPanel>
    </div>
  </Dialog>
</template>
