<script setup lang="ts">
import type { Component } from 'vue'
import { STAGE_WORDS, STAGES, type Stage } from '#core/procedure/stages'
import { stageAfter } from '#core/procedure/schools'
import { STAGE_TOOLS } from '#core/procedure/tools'

// one stage is looked at, and only its own code is waited for
const VIEWS: Partial<Record<Stage, Component>> = {
  said: defineAsyncComponent(() => import('~/components/stages/SaidStage.vue')),
  sense: defineAsyncComponent(() => import('~/components/stages/SenseStage.vue')),
  hanger: defineAsyncComponent(() => import('~/components/stages/HangerStage.vue')),
  stops: defineAsyncComponent(() => import('~/components/stages/StopsStage.vue')),
  cable: defineAsyncComponent(() => import('~/components/stages/CableStage.vue')),
  gap: defineAsyncComponent(() => import('~/components/stages/GapStage.vue')),
  prove: defineAsyncComponent(() => import('~/components/stages/ProveStage.vue')),
}

const route = useRoute()
const stage = computed(() => STAGES.find(s => s === route.params.stage) ?? null)
const view = computed(() => (stage.value && VIEWS[stage.value]) ?? null)
const bench = useBench(
  () => (stage.value ? STAGE_WORDS[stage.value] : 'Stage'),
  ['rear'],
  () => ({ PageDown: () => void go(next.value) }),
)
const { number, state } = bench
const schools = useSchools()
const linkTo = (to: Stage) => stageLink(number, to)
const go = (to: Stage) => navigateTo(linkTo(to))
const next = computed(() => stageAfter(stage.value ?? 'said', schools.value))
</script>

<template>
  <div class="bench-frame">
    <JobTop here="rear" :bench="bench" />
    <div v-if="!view" class="p-6">
      <p class="stopped" role="alert">There is no such stage here.</p>
      <NuxtLink to="/" class="act mt-4 max-w-sm">To the Floor</NuxtLink>
    </div>
    <JobNotHere v-else-if="bench.loaded.value !== 'ready'" :bench="bench" />
    <template v-else>
      <aside class="bench-left" aria-label="Stages and turns">
        <StagePathAsked :state="state" :number="number" :here="stage" />
        <div class="mt-auto pt-2">
          <NetTurns :state="state" />
          <TakeBack :bench="bench" />
        </div>
      </aside>
      <main class="bench-middle">
        <BenchTroubles :bench="bench" />
        <LazyNoDerailleur
          v-if="!state.rear.setup"
          :number="number"
          :state="state"
          @take="bench.put({ kind: 'parts', parts: $event }, 'Drivetrain named')"
        />
        <component
          :is="view"
          v-else
          :key="stage ?? ''"
          class="bench-stage"
          :state="state"
          :schools="schools"
          @record="bench.put"
          @go="go"
          @bench="(b: string) => navigateTo(`/jobs/${number}/${b}`)"
        >
          <p v-if="stage && STAGE_TOOLS[stage]" class="small" data-test="tools">Tools: {{ STAGE_TOOLS[stage] }}</p>
          <NuxtLink v-if="stage === 'cable'" :to="`/jobs/${number}/cables`" class="also" data-test="to-cables"
            >Runs, lengths and cut list</NuxtLink
          >
          <NuxtLink :to="linkTo(next)" class="also" data-test="next-stage"
            >On to {{ STAGE_WORDS[next].toLowerCase() }} <kbd class="key">PgDn</kbd></NuxtLink
          >
        </component>
      </main>
    </template>
    <BenchSaid :bench="bench" />
  </div>
</template>
