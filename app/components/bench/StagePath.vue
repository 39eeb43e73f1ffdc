<!-- The stages as one run of cable from lever to derailleur, in the order of the school. -->
<script setup lang="ts">
import type { JobState } from '#core/ledger/reduce'
import { stagesDone } from '#core/rear/progress'
import { stagesOf } from '#core/procedure/schools'
import { STAGE_WORDS, type Stage } from '#core/procedure/stages'

const props = defineProps<{ state: JobState; number: number; right: number | null; here: Stage | null }>()
const schools = useSchools()
const { standards } = storeToRefs(useLedger())
const stages = computed(() => {
  const done = stagesDone(
    props.state.rear,
    props.state.job.handedBack !== null,
    schools.value,
    props.right,
    standards.value,
  )
  return stagesOf(schools.value).map(stage => ({
    stage,
    name: STAGE_WORDS[stage],
    done: done[stage],
    to: stageLink(props.number, stage),
  }))
})
</script>

<template>
  <ol class="path">
    <li
      v-for="s in stages"
      :key="s.stage"
      :class="{ done: s.done }"
      :aria-current="s.stage === here ? 'step' : undefined"
    >
      <span class="bead" aria-hidden="true" />
      <NuxtLink
        :to="s.to"
        class="flex items-center"
        :class="s.stage === here ? 'font-bold' : 'text-soft'"
        :data-test="`stage-${s.stage}`"
        >{{ s.name }}<span class="sr-only">{{ s.done ? ', done' : '' }}</span></NuxtLink
      >
    </li>
  </ol>
</template>

<style scoped>
.path li {
  position: relative;
  padding-left: 32px;
}
.path a {
  min-height: 44px;
}
.path li::before {
  content: '';
  position: absolute;
  left: 7px;
  top: -22px;
  height: 44px;
  width: 3px;
  background: var(--rule);
}
.path li:first-child::before {
  display: none;
}
.path li.done::before {
  background: var(--ink);
}
.bead {
  position: absolute;
  z-index: 1;
  left: 1px;
  top: 13px;
  width: 15px;
  height: 18px;
  border: 3px solid var(--rule);
  border-radius: 4px;
  background: var(--ground);
}
.done .bead {
  background: var(--ink);
  border-color: var(--ink);
}
[aria-current='step'] .bead {
  border-color: var(--ink);
}
/* on a low screen two or three stand side by side, so that each is as high as a finger needs */
@media (max-height: 780px) and (min-width: 1001px) {
  .path {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 2px;
  }
  .path li {
    padding: 0;
  }
  .path a {
    padding: 2px 2px 2px 9px;
    border-left: 5px solid var(--rule);
    font-size: 0.8125rem;
    line-height: 1.15;
  }
  .path li.done a {
    border-color: var(--ink);
  }
  .path li::before,
  .bead {
    display: none;
  }
}
@media (max-height: 700px) and (min-width: 1001px) {
  .path {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
}
/* on a phone it folds to one line that scrolls */
@media (max-width: 1000px) {
  .path {
    display: flex;
    gap: 4px;
    overflow-x: auto;
    scrollbar-width: none;
  }
  .path li {
    flex: 0 0 auto;
    padding: 0 10px 0 26px;
  }
  .path a {
    min-height: 44px;
    min-width: 44px;
    white-space: nowrap;
  }
  .path li::before {
    display: none;
  }
  .bead {
    top: 13px;
  }
}
</style>
