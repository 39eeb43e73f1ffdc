<!-- What a page of the rear derailleur says where none is named: there is none, or it is found out here and now. -->
<script setup lang="ts">
import type { JobState } from '#core/ledger/reduce'
import { unnamedDerailleur } from '#core/rear/counted'
import type { RearParts } from '#core/rear/parts'

const props = defineProps<{ number: number; state: JobState }>()
const emit = defineEmits<{ take: [parts: RearParts] }>()
const closed = computed(() => props.state.job.handedBack !== null)
const asked = computed(() => !closed.value && unnamedDerailleur(props.state))
const choosing = ref(false)
</script>

<template>
  <main
    class="grid content-start gap-3 overflow-y-auto p-4 sm:p-6"
    :class="asked || choosing ? 'max-w-4xl' : 'max-w-xl'"
  >
    <template v-if="asked || choosing">
      <p class="text-2xl leading-tight font-bold">Which drivetrain is it?</p>
      <p>Before the first turn: Ocho counts by its numbers. Take the one that fits, measure it, or type its figures.</p>
      <Suspense
        ><LazyJobDrivetrain
          :state="state"
          :only="!choosing"
          @take="emit('take', $event)"
          @close="choosing = false"
        /><template #fallback><p class="text-soft">Reading the catalogue</p></template></Suspense
      >
    </template>
    <template v-else>
      <p class="text-2xl leading-tight font-bold">No derailleur at the back</p>
      <p>This bike was taken in without one.</p>
      <NuxtLink class="act" :to="`/jobs/${number}/hub`" data-test="none-to-hub">To the hub gear</NuxtLink>
      <NuxtLink class="also" :to="`/jobs/${number}/brakes`">To the brakes</NuxtLink>
      <button v-if="!closed" type="button" class="also" data-test="one-after-all" @click="choosing = true">
        It has one after all
      </button>
    </template>
  </main>
</template>
