<!-- What is not as it should be on a bench, and what to do: said at the top, never in a dialog. -->
<script setup lang="ts">
import { firstPutRight } from '#core/procedure/progress'

const ledger = useLedger()
const route = useRoute()
const { state, trouble, outdated } = storeToRefs(ledger)
const dismissed = ref(new Set<string>())
const stuck = computed(() => state.value.flagged.at(-1) ?? null)
const first = computed(() => firstPutRight(state.value))
</script>

<template>
  <p v-if="trouble?.is === 'offline'" class="stopped" role="status" data-test="offline">
    The server cannot be reached. What you tap is kept here and sent when it is back.
  </p>
  <p v-else-if="trouble?.is === 'signed-out'" class="stopped" role="alert">
    This device was signed out. What you tapped is kept here:
    <NuxtLink class="underline" :to="{ path: '/sign-in', query: { to: route.fullPath } }">sign in again</NuxtLink>
  </p>
  <p v-else-if="trouble?.is === 'refused'" class="stopped flex items-center justify-between" role="alert">
    {{ trouble.message }} <button type="button" class="quiet" @click="ledger.clearTrouble()">Close</button>
  </p>
  <p v-if="outdated" class="stopped" role="alert">A newer Ocho wrote some of this log: reload to update.</p>
  <p
    v-if="stuck && !dismissed.has(stuck.id)"
    class="stopped flex flex-wrap items-center justify-between gap-2"
    role="alert"
    data-test="flagged"
  >
    {{ stuck.why }}
    <span class="flex gap-1"
      ><button type="button" class="quiet" @click="ledger.append({ kind: 'undo', undoes: stuck.id })">
        It was the same: take it back</button
      ><button type="button" class="quiet" @click="dismissed = new Set([...dismissed, stuck.id])">Keep it</button></span
    >
  </p>
  <p
    v-if="first && route.params.stage !== 'sense'"
    class="stopped flex items-center justify-between gap-2 text-sm leading-tight"
    role="status"
    data-test="put-right"
  >
    Before any screw. {{ first }}
    <NuxtLink :to="`/jobs/${ledger.number}/stage/sense`" class="quiet underline whitespace-nowrap"
      >To the sense check</NuxtLink
    >
  </p>
</template>
