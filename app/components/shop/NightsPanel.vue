<!-- How the nights' backups and the disk stand, and a backup now. -->
<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { Done } from '#core/http/answers'
import { NightsView } from '#core/shop/nights'

const props = defineProps<{ zone: string }>()
const session = useSession()
const { data: nights, error, refresh } = await useRead(NightsView, '/api/shop/nights')
const trouble = ref('')
const size = (bytes: number) =>
  bytes >= 1024 ** 3 ? `${(bytes / 1024 ** 3).toFixed(1)} GB` : `${Math.max(1, Math.round(bytes / 1024 ** 2))} MB`
const good = computed(() => {
  const { goodAt, bytes } = nights.value?.status ?? {}
  return goodAt ? `${sayTime(goodAt, props.zone)}${bytes ? `, ${size(bytes)}` : ''}` : 'none yet'
})
/** One is being made: looked again until it is done. */
const making = computed(() => nights.value?.asked ?? false)
const { pause, resume } = useIntervalFn(() => refresh(), 2_000, { immediate: false })
watch(making, on => (on ? resume() : pause()), { immediate: true })
async function now() {
  const asked = await asOwner(() => ask(Done, '/api/shop/nights', { method: 'POST' }))
  trouble.value = sayTrouble(asked)
  await refresh()
}
</script>

<template>
  <section data-test="nights">
    <h2 class="text-lg font-bold">Backups</h2>
    <p v-if="error" class="mt-2 text-soft" data-test="nights-elsewhere">
      {{ error.data?.data?.message ?? OFFLINE_WORDS }}
    </p>
    <template v-else-if="nights">
      <p v-for="w in nights.warnings" :key="w" class="stopped mt-2" role="alert">{{ w }}</p>
      <p v-if="trouble || nights.status.trouble" class="stopped mt-2" role="alert">
        {{ trouble || `The last try failed: ${nights.status.trouble}` }}
      </p>
      <dl class="mt-2 grid grid-cols-[8.5rem_1fr] gap-y-1 border-t border-rule pt-2">
        <dt class="text-soft">Last good one</dt>
        <dd class="font-semibold" data-test="last-good">{{ good }}</dd>
        <dt class="text-soft">Room on the disk</dt>
        <dd class="figure">{{ size(nights.freeBytes) }}</dd>
      </dl>
      <p class="small mt-1">
        {{
          session.now?.shop.demo
            ? 'Nobody needs a demo’s nights: one is made when it is asked for.'
            : 'Made every night while the shop’s machine is on, each proven by restoring it. One a day is kept for a fortnight, one a month for a year.'
        }}
      </p>
      <button type="button" class="also mt-2" :disabled="making" data-test="backup-now" @click="now">
        {{ making ? 'Making one…' : 'Make one now' }}
      </button>
    </template>
  </section>
</template>
