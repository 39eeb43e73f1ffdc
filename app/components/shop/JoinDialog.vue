<!-- Two squares for a device to scan: how to trust this machine, and the way in. It says when the device is in. -->
<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { useIntervalFn, useNow } from '@vueuse/core'
import { JoinCode, JoinCodeState } from '#core/http/joining'
import type { ReachStatus } from '#core/shop/reach'

defineProps<{ status: ReachStatus }>()
const emit = defineEmits<{ close: []; joined: [] }>()
const code = shallowRef<JoinCode | null>(null)
const trouble = ref('')
const device = ref<string | null>(null)
const now = useNow({ interval: 1_000 })
const left = computed(() => (code.value ? Date.parse(code.value.expiresAt) - now.value.getTime() : 0))
const over = computed(() => code.value !== null && device.value === null && left.value <= 0)
const minutes = computed(
  () => `${Math.floor(left.value / 60_000)}:${String(Math.floor((left.value / 1000) % 60)).padStart(2, '0')}`,
)
const picture = (svg: string) => `data:image/svg+xml,${encodeURIComponent(svg)}`

async function make() {
  device.value = null
  const asked = await asOwner(() => ask(JoinCode, '/api/shop/joins', { method: 'POST' }))
  trouble.value = sayTrouble(asked)
  code.value = asked.is === 'done' ? asked.value : null
}
const { pause } = useIntervalFn(async () => {
  if (!code.value || device.value !== null || over.value) return
  const asked = await ask(JoinCodeState, `/api/shop/joins/${code.value.id}`)
  if (asked.is !== 'done' || asked.value.is !== 'used') return
  device.value = asked.value.device ?? 'A device'
  emit('joined')
}, 1_500)
onBeforeUnmount(pause)
void make()
</script>

<template>
  <Dialog :open="true" class="relative z-40" @close="emit('close')">
    <div class="fixed inset-0 bg-mat/70" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center overflow-y-auto p-4 pt-10">
      <DialogPanel class="w-full max-w-3xl rounded-md bg-panel p-5 text-ink" data-test="join-dialog">
        <DialogTitle class="text-xl font-bold">{{ device ? `${device} is in` : 'Join a device' }}</DialogTitle>
        <p v-if="trouble" class="stopped mt-3" role="alert">{{ trouble }}</p>
        <p v-if="device" class="mt-2" role="status" data-test="join-done">
          At it, people now touch their name and type their PIN. It is in the list of devices, and signed out from
          there.
        </p>
        <template v-else-if="code">
          <div class="mt-4 grid gap-6 sm:grid-cols-2">
            <div v-if="code.trust">
              <h3 class="font-bold">First time: trust this machine</h3>
              <img
                :src="picture(code.trust.svg)"
                alt="Square code of the page that says how"
                class="mt-2 w-full max-w-56"
              />
              <p class="figure small mt-2 break-all" data-test="trust-url">{{ code.trust.url }}</p>
              <p class="small mt-2">Before it says yes, it shows a fingerprint (SHA-256). It must be this one:</p>
              <p class="font-semibold">{{ status.words.join(' ') }}</p>
              <p class="figure small break-all">{{ status.fingerprint?.toUpperCase().match(/.{4}/g)?.join(' ') }}</p>
            </div>
            <div :class="{ 'opacity-25': over }">
              <h3 class="font-bold">Then, and ever after: come in</h3>
              <img
                :src="picture(code.join.svg)"
                alt="Square code of the way in, with its code"
                class="mt-2 w-full max-w-56"
                data-test="join-square"
              />
              <p class="figure small mt-2 break-all" data-test="join-url">{{ code.join.url.split('#')[0] }}</p>
              <p class="figure mt-2 text-3xl font-bold" data-test="join-code">{{ code.code }}</p>
              <p class="small mt-1">
                For one device, still <span class="figure">{{ over ? '0:00' : minutes }}</span> min.
              </p>
            </div>
          </div>
        </template>
        <p v-else-if="!trouble" class="mt-4 text-soft" role="status">Making a code…</p>
        <div class="mt-5 flex flex-wrap gap-2">
          <button v-if="device || over || trouble" type="button" class="also" data-test="join-again" @click="make">
            {{ device ? 'Join another' : 'Make a new code' }}
          </button>
          <button type="button" class="quiet" @click="emit('close')">{{ device ? 'Done' : 'Not now' }}</button>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
