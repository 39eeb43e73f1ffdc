<!-- Whether tablets reach this machine, by which name, and how one joins. -->
<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { Done } from '#core/http/answers'
import { isAddress, ReachView, secureOrigin, type ReachWish } from '#core/shop/reach'

const props = defineProps<{ zone: string }>()
const emit = defineEmits<{ joined: [] }>()
const { data: reach, error, refresh } = await useRead(ReachView, '/api/shop/reach')
const trouble = ref('')
const joining = ref(false)
const shutting = ref(false)
const wish = computed(() => reach.value?.wish)
const status = computed(() => reach.value?.status)
const origin = computed(() => (status.value ? secureOrigin(status.value) : null))
/** Asked for and not yet so, or no longer. */
const changing = computed(
  () =>
    status.value !== undefined &&
    wish.value !== undefined &&
    status.value.trouble === null &&
    (wish.value.lan !== status.value.lan ||
      (wish.value.name !== null && status.value.lan && wish.value.name !== status.value.name)),
)
const { pause, resume } = useIntervalFn(() => refresh(), 1_000, { immediate: false })
watch(changing, on => (on ? resume() : pause()), { immediate: true })
const NAMES = computed(() => status.value?.names.map(n => ({ value: n, words: n })) ?? [])
const chooseName = (name: unknown) => void (typeof name === 'string' && want({ lan: true, name }))
async function want(next: ReachWish) {
  const asked = await asOwner(() => ask(Done, '/api/shop/reach', { method: 'POST', body: next }))
  trouble.value = sayTrouble(asked)
  shutting.value = false
  await refresh()
}
</script>

<template>
  <section data-test="reach">
    <h2 class="text-lg font-bold">Tablets and phones</h2>
    <p v-if="error" class="mt-2 text-soft">{{ error.data?.data?.message ?? OFFLINE_WORDS }}</p>
    <template v-else-if="reach && wish && status">
      <p v-if="trouble || status.trouble" class="stopped mt-2" role="alert" data-test="reach-trouble">
        {{ trouble || status.trouble }}
      </p>
      <p v-if="changing" class="mt-2 font-semibold" role="status">{{ wish.lan ? 'Opening…' : 'Shutting…' }}</p>
      <template v-if="!wish.lan">
        <p class="mt-2">Only this machine opens Ocho.</p>
        <p class="small mt-1">
          Let tablets in, and every device on the shop’s network reaches its door, over HTTPS with a certificate of the
          shop’s own. None comes further without a code of yours, or a password.
        </p>
        <button type="button" class="also mt-2" data-test="reach-on" @click="want({ ...wish, lan: true })">
          Let tablets reach it
        </button>
      </template>
      <template v-else-if="status.lan">
        <dl class="mt-2 grid grid-cols-[8.5rem_1fr] gap-y-1 border-t border-rule pt-2">
          <dt class="sr-only">Address</dt>
          <dd class="figure col-span-2 min-w-0 break-all font-semibold" data-test="reach-address">{{ origin }}</dd>
          <dt class="text-soft">Vouched for until</dt>
          <dd>{{ status.until ? sayTime(status.until, props.zone).split(',')[0] : '' }}, then renewed by itself</dd>
        </dl>
        <details v-if="NAMES.length > 1" class="mt-1">
          <summary class="quiet -ml-2 inline-flex cursor-pointer items-center">It has other names</summary>
          <ChoiceRow
            :model-value="status.name"
            label="Name that tablets use"
            :choices="NAMES"
            :columns="1"
            test="reach-name"
            @update:model-value="chooseName"
          />
          <p class="small mt-1">
            What a tablet keeps stays with the name it was joined by. A name stays when the router gives another
            address; tablets find one that ends in .local where the package avahi-daemon runs here.
          </p>
        </details>
        <p v-if="status.name && isAddress(status.name)" class="small mt-1">
          An address can change: have the router always give this machine the same one.
        </p>
        <div class="mt-2 flex flex-wrap items-center gap-2">
          <button type="button" class="also" data-test="join-device" @click="joining = true">Join a device</button>
          <button type="button" class="quiet" :aria-expanded="shutting" @click="shutting = !shutting">
            Shut it again
          </button>
        </div>
        <div v-if="shutting" class="mt-2 border-l-2 border-stop pl-3">
          <p>
            Tablets go on with what they keep, and send it when it is open again. This one too, if it is not the machine
            Ocho runs on: then only that machine can open it again.
          </p>
          <button
            type="button"
            class="also mt-2 text-stop"
            data-test="reach-off"
            @click="want({ lan: false, name: wish.name })"
          >
            Shut it
          </button>
        </div>
      </template>
    </template>
    <p v-if="reach?.running" class="small mt-2" data-test="which-ocho">
      Ocho {{ reach.running.version }}, running since {{ sayTime(reach.running.since, props.zone) }}.
    </p>
    <LazyJoinDialog v-if="joining" :status="status!" @close="joining = false" @joined="emit('joined')" />
  </section>
</template>
