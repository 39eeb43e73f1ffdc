<!-- A hand at a gate: name and PIN on this tablet, for that gate alone. -->
<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import type { Sign } from '~/stores/outbox'

const props = defineProps<{
  /** What is signed, in words. */
  what: string
  /** Why a hand is asked for. */
  why: string
  /** Whoever works here signs for themselves: only the PIN is asked. */
  own: boolean
}>()
const emit = defineEmits<{ sign: [hand: Sign]; close: [] }>()
const session = useSession()
const person = ref<string | null>(props.own ? (session.now?.person?.id ?? null) : null)
const pin = ref('')
const who = computed(() =>
  (session.now?.people ?? [])
    .filter(p => (props.own ? p.id === session.now?.person?.id : p.role !== 'trainee'))
    .map(p => ({ value: p.id as string, words: p.name, test: p.name })),
)
</script>

<template>
  <Dialog :open="true" class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 bg-mat/70" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center overflow-y-auto p-4 pt-16">
      <DialogPanel class="w-full max-w-md rounded-md bg-panel p-5 text-ink">
        <DialogTitle class="text-xl font-bold" data-test="signing">{{ what }}</DialogTitle>
        <p class="mt-1 text-soft">{{ why }}</p>
        <ChoiceRow
          v-model="person"
          class="mt-3"
          label="Who signs"
          :choices="who"
          :columns="1"
          :centred="false"
          size="roomy"
          test="sign"
        />
        <PinPad v-if="person" v-model="pin" class="mt-4" @done="emit('sign', { person, pin })" />
        <button type="button" class="quiet mt-3" @click="emit('close')">Not now</button>
      </DialogPanel>
    </div>
  </Dialog>
</template>
