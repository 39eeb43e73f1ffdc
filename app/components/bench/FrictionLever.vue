<!-- A lever without clicks: what is set instead of an index, and how much cable it must pull. -->
<script setup lang="ts">
import type { JobState } from '#core/ledger/reduce'
import { stopsSeen } from '#core/rear/gates'
import { geometryOf } from '#core/response/setup'

const props = defineProps<{ state: JobState; number: number }>()
const travelMm = computed(() => {
  const g = geometryOf(props.state.rear.setup!)
  return g.placeMm[g.n - 1] / props.state.rear.setup!.pullRatio
})
const seen = computed(() => stopsSeen(props.state.rear.trace))
</script>

<template>
  <section aria-label="Friction lever" data-test="friction-lever">
    <p class="small">No clicks</p>
    <p class="text-3xl leading-tight font-bold">Nothing to index</p>
    <p class="mt-2">
      Only stops, gap and slack are set. The lever must pull
      <b class="figure" data-test="travel">{{ travelMm.toFixed(1) }} mm</b> of cable from the smallest sprocket to the
      largest.
    </p>
    <ol class="mt-3 grid gap-2">
      <li>
        <NuxtLink class="also" :to="`/jobs/${number}/stage/stops`"
          >Stops: L {{ seen.L ? 'seen' : 'not seen' }}, H {{ seen.H ? 'seen' : 'not seen' }}</NuxtLink
        >
      </li>
      <li>
        <NuxtLink class="also" :to="`/jobs/${number}/stage/cable`">Slack: snug at the slackest place, no more</NuxtLink>
      </li>
      <li><NuxtLink class="also" :to="`/jobs/${number}/stage/gap`">B gap</NuxtLink></li>
    </ol>
    <p class="mt-3">
      The friction screw of the lever tight enough not to creep on a climb, loose enough for a thumb. Ride it up a hill
      in the largest.
    </p>
  </section>
</template>
