<!-- What is not as it should be on a bench, and what to do: said at the top, never in a dialog. -->
<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { minutesOf } from '#core/job/minutes'
import { headOfRear } from '#core/rear/heads'
import type { Bench } from '~/composables/bench'
import { countOf } from '#core/quantity/words'

const props = defineProps<{ bench: Bench }>()
const ledger = useLedger()
const outbox = useOutbox()
const route = useRoute()
const { state, trouble, newer, waiting, standards } = storeToRefs(ledger)
const dismissed = ref(new Set<string>())
const stuck = computed(() => state.value.flagged.findLast(f => !dismissed.value.has(f.id)) ?? null)
const head = computed(() => headOfRear(state.value.rear, standards.value))
const { doubtful, hint, closed } = props.bench
/** A job that runs over is said so once, on this device. */
const told = useLocalStorage<number[]>('ocho-over', [])
const takes = computed(() => props.bench.record.value?.takes ?? null)
const over = computed(() => {
  const spent = takes.value ? minutesOf(state.value.inForce) : 0
  return takes.value && spent > takes.value.most && !closed.value && !told.value.includes(props.bench.number)
    ? Math.round(spent)
    : null
})
const heardOver = () => {
  told.value = [...told.value.slice(-50), props.bench.number]
}
</script>

<template>
  <p v-if="trouble?.is === 'offline'" class="stopped" role="status" data-test="offline">
    Offline, {{ countOf(waiting.length, 'tap') }} kept: sent when the server is back.
  </p>
  <p v-else-if="trouble?.is === 'signed-out'" class="stopped" role="alert">
    {{ sayTrouble(trouble) }}
    <NuxtLink class="underline" :to="{ path: '/sign-in', query: { to: route.fullPath } }">To the sign-in</NuxtLink>
  </p>
  <p v-else-if="trouble" class="stopped flex items-center justify-between" role="alert" data-test="refused">
    {{ sayTrouble(trouble) }} <button type="button" class="quiet" @click="outbox.clearTrouble()">Close</button>
  </p>
  <p v-if="over !== null" class="stopped flex items-center justify-between gap-2" role="status" data-test="runs-over">
    {{ over }} minutes on this job; three of four such take less than {{ Math.round(takes!.most) }}. Does its promise
    hold?
    <button type="button" class="quiet" @click="heardOver">Heard</button>
  </p>
  <p v-if="hint" class="stopped" role="alert" data-test="hint">{{ hint }}</p>
  <p v-if="newer" class="stopped" role="alert" data-test="newer">
    A newer Ocho wrote some of this log: reload to update.
  </p>
  <p v-if="closed" class="stopped flex items-center justify-between gap-2" role="status" data-test="closed">
    This bike was handed back: its bench can be read.
    <span class="flex gap-1"
      ><button type="button" class="quiet underline" data-test="reopen-here" @click="bench.reopen">
        Reopen this job
      </button>
      <NuxtLink class="quiet underline" :to="`/jobs/${bench.number}/sheet`">To its sheet</NuxtLink></span
    >
  </p>
  <p v-if="stuck" class="stopped flex flex-wrap items-center justify-between gap-2" role="alert" data-test="flagged">
    {{ stuck.why }}
    <span class="flex gap-1"
      ><button type="button" class="quiet" data-test="flag-undo" @click="bench.put({ kind: 'undo', undoes: stuck.id })">
        Take it back</button
      ><button type="button" class="quiet" @click="dismissed = new Set([...dismissed, stuck.id])">
        Leave it noted
      </button></span
    >
  </p>
  <LazyHeadFirst v-if="head && !closed && route.params.stage !== head.at" :bench="bench" :head="head" />
  <LazyDoubtfulFigure
    v-if="doubtful"
    :question="doubtful.question"
    @keep="bench.keepDoubtful"
    @leave="bench.leaveDoubtful"
  />
</template>
