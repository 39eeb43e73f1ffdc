<!-- The parts of a bike that are worked on, as pieces of one housing run: each with how it stands, one touch from any
     other. -->
<script setup lang="ts">
import { JOB_PART_WORDS, partsOf, type JobPart, type Opinions } from '#core/ledger/parts'
import type { JobState } from '#core/ledger/reduce'

const props = defineProps<{ number: number; state: JobState; here: JobPart | null; opinions: Opinions }>()
const PATHS: Record<JobPart, string> = {
  'front-brake': 'brakes?brake=front',
  front: 'front',
  rear: 'rear',
  hub: 'hub',
  cables: 'cables',
  'rear-brake': 'brakes?brake=rear',
  sheet: 'sheet',
}
const IS_WORDS = { untouched: 'not begun', hand: 'in hand', right: 'right', keeps: 'keeps the bike' } as const
const parts = computed(() =>
  partsOf(props.state, props.opinions).map(p => ({
    ...p,
    name: JOB_PART_WORDS[p.part],
    to: `/jobs/${props.number}/${PATHS[p.part]}`,
    says: IS_WORDS[p.is],
  })),
)
const row = useTemplateRef<HTMLElement>('row')
// on a phone the row scrolls: the part at hand is in sight
watch(
  () => [props.here, row.value] as const,
  async () => {
    await nextTick()
    const at = row.value?.querySelector<HTMLElement>('[aria-current]')
    if (at && row.value) row.value.scrollLeft = at.offsetLeft - (row.value.clientWidth - at.clientWidth) / 2
  },
  { immediate: true },
)
</script>

<template>
  <nav ref="row" class="parts" aria-label="Parts of this bike">
    <NuxtLink
      v-for="p in parts"
      :key="p.part"
      :to="p.to"
      class="part"
      :class="[p.is, { here: p.part === here }]"
      :aria-current="p.part === here ? 'page' : undefined"
      :data-test="`part-${p.part}`"
    >
      <svg width="16" height="16" viewBox="-8 -8 16 16" class="state" aria-hidden="true">
        <rect v-if="p.is === 'keeps'" x="-7" y="-7" width="14" height="14" rx="2" fill="currentColor" />
        <circle
          v-else
          r="6.5"
          :fill="p.is === 'right' ? 'currentColor' : 'none'"
          stroke="currentColor"
          stroke-width="2"
        />
        <path v-if="p.is === 'keeps'" d="M-4 0H4" class="cut" />
        <path v-else-if="p.is === 'right'" d="M-3.4 .2L-.9 2.8 3.6 -2.6" class="cut" />
        <path v-else-if="p.is === 'hand'" d="M0 -6A6 6 0 0 0 0 6Z" fill="currentColor" />
      </svg>
      <span class="words"
        ><b class="name">{{ p.name }}</b><span class="sr-only">, {{ p.says }}: </span
        ><span class="how">{{ p.words }}</span></span
      >
    </NuxtLink>
  </nav>
</template>

<style scoped>
.parts {
  position: relative;
  display: flex;
  gap: 22px;
  padding: 8px 30px 8px 26px;
  overflow-x: auto;
  scrollbar-width: none;
}
.part {
  position: relative;
  flex: 1 0 128px;
  display: flex;
  align-items: center;
  gap: 9px;
  min-width: 0;
  height: 48px;
  padding: 0 12px;
  background: var(--panel);
  border: 2px solid var(--ink);
  line-height: 1.2;
}
/* ferrules, and the wire between two pieces */
.part::before,
.part::after {
  content: '';
  position: absolute;
  top: 6px;
  bottom: 6px;
  width: 10px;
  border-radius: 2px;
  background: var(--ferrule);
}
.part::before {
  left: -7px;
}
.part::after {
  right: -7px;
  box-shadow: 8px 0 0 -3px transparent;
}
.part:not(:last-child) .words::after {
  content: '';
  position: absolute;
  z-index: -1;
  right: -24px;
  top: 50%;
  width: 24px;
  height: 3px;
  margin-top: -2px;
  background: var(--ink);
}
.words {
  display: block;
  min-width: 0;
}
.name,
.how {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.how {
  font-size: 0.875rem;
  color: var(--soft);
}
.state {
  flex-shrink: 0;
  color: var(--soft);
}
.cut {
  fill: none;
  stroke: var(--panel);
  stroke-width: 2.2;
}
.right .state {
  color: var(--clean);
}
.hand .state {
  color: var(--ink);
}
.keeps .state,
.keeps .how {
  color: var(--stop);
}
.here {
  background: var(--act);
  color: var(--act-ink);
  border-color: var(--act);
}
.here .how,
.here .state {
  color: var(--act-ink);
}
.here .cut {
  stroke: var(--act);
}
@media (max-height: 700px) {
  .parts {
    padding-block: 5px;
  }
  .part {
    height: 44px;
  }
}
@media (max-width: 1000px) {
  .part {
    flex: 0 0 auto;
    max-width: 168px;
  }
}
</style>
