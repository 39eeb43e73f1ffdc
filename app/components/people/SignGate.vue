<!-- A mechanic's hand for a trainee's gate: name and PIN on this tablet, for that gate alone. -->
<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

defineProps<{ what: string }>()
const emit = defineEmits<{ sign: [hand: { person: string; pin: string }]; close: [] }>()
const session = useSession()
const person = ref<string | null>(null)
const pin = ref('')
const who = computed(() => session.now?.people.filter(p => p.role !== 'trainee') ?? [])
</script>

<template>
  <Dialog :open="true" class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 bg-mat/70" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center overflow-y-auto p-4 pt-16">
      <DialogPanel class="w-full max-w-md rounded-md bg-panel p-5 text-ink">
        <DialogTitle class="text-xl font-bold">{{ what }}</DialogTitle>
        <div class="mt-3 grid gap-2">
          <button
            v-for="p in who"
            :key="p.id"
            type="button"
            class="also"
            :class="{ 'bg-act! text-act-ink!': person === p.id }"
            :aria-pressed="person === p.id"
            :data-test="`sign-${p.name}`"
            @click="person = p.id"
          >
            {{ p.name }}
          </button>
        </div>
        <PinPad v-if="person" v-model="pin" class="mt-4" @done="emit('sign', { person, pin })" />
        <button type="button" class="quiet mt-3" @click="emit('close')">Not now</button>
      </DialogPanel>
    </div>
  </Dialog>
</template>
