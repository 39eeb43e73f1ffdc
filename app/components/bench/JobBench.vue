<!-- The frame of a bench: what there is at the left, its picture, the panels at the right; one undo, one place for
     troubles. -->
<script setup lang="ts" generic="P extends string">
import type { JobPart, Opinions } from '#core/ledger/parts'
import type { Bench } from '~/composables/bench'

defineProps<{
  bench: Bench
  /** The part of the bike that this bench works on. */
  here: JobPart
  opinions?: Opinions
  leftLabel: string
  lookLabel: string
  panels: readonly (readonly [P, string])[]
  /** On a phone the left comes first: it chooses what the rest is about. */
  runsFirst?: boolean
  /** On a phone the panel comes before the picture. */
  actFirst?: boolean
}>()
const panel = defineModel<P>('panel', { required: true })
</script>

<template>
  <div class="bench-frame" :class="{ 'runs-first': runsFirst }">
    <JobTop :here="here" :opinions="opinions" :bench="bench" />
    <JobNotHere v-if="bench.loaded.value !== 'ready'" :bench="bench" />
    <template v-else>
      <aside class="bench-left no-print" :aria-label="leftLabel">
        <slot name="left" />
        <TakeBack class="mt-auto" :bench="bench" />
      </aside>
      <main class="bench-middle">
        <BenchTroubles class="no-print" :bench="bench" />
        <slot name="above" />
        <div class="bench-stage no-print" :class="{ 'act-first': actFirst }">
          <section class="look" :aria-label="lookLabel"><slot name="look" /></section>
          <aside class="panel" :aria-label="panels.find(p => p[0] === panel)?.[1]">
            <PanelTabs v-model="panel" :tabs="panels" label="What is done" test="panel">
              <template v-for="[key] in panels" #[key] :key="key"><slot :name="key" /></template>
            </PanelTabs>
          </aside>
        </div>
        <slot name="below" />
      </main>
    </template>
    <BenchSaid :bench="bench" />
  </div>
</template>
