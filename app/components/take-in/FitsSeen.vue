<!-- Drivetrains that fit what was seen, most often here first; found out at the stand, measured or typed are ways too.
  -->
<script setup lang="ts">
import { useMediaQuery, useMounted } from '@vueuse/core'
import { fittingSeen, type Fitting, type Seen } from '#core/job/seen'
import { DRIVETRAIN_STANDARDS, sayStandard, standardFigures } from '#core/standards/drivetrains'
import type { EntryInForce } from '#core/standards/shopValues'
import { matchOfParts, type ReadParts } from '#core/rear/typedParts'

const props = defineProps<{
  seen: Pick<Seen, 'sprockets' | 'lever'>
  used: Readonly<Record<string, number>>
  catalogue: readonly EntryInForce[]
  read: ReadParts
  /** Row of the table, `typed` for figures of its own, or null while it is open. */
  chosen: string | null
  /** Nothing may stay open: it is asked here and now. */
  now?: boolean
  way: 'fits' | 'figures' | 'measure'
}>()
const emit = defineEmits<{ choose: [id: string | null]; way: [way: 'fits' | 'figures' | 'measure'] }>()
const mounted = useMounted()
const low = useMediaQuery('(max-height: 700px) and (min-width: 1000px)')
const short = computed(() => mounted.value && low.value)
/** One row of three on a low screen, two elsewhere; one place is for leaving it open. */
const shownMost = computed(() => (short.value ? 2 : 5))
const all = ref(false)
const fits = computed(() => fittingSeen(props.seen, props.used))
const list = computed<Fitting[]>(() => {
  const { usual, less } = fits.value
  if (all.value) return [...usual, ...less]
  const shown = usual.length ? usual.slice(0, shownMost.value) : less.slice(0, shownMost.value)
  const kept = [...usual, ...less].find(f => f.standard.id === props.chosen)
  return kept && !shown.includes(kept) ? [kept, ...shown.slice(0, shownMost.value - 1)] : shown
})
const hidden = computed(() => fits.value.usual.length + fits.value.less.length - list.value.length)
/** The shop's own name of it, by its shifter; else in words that people use. */
function named(f: Fitting): string {
  const entry = props.catalogue.find(e => e.kind === 'shifter' && e.id === f.standard.id)
  return entry?.nickname ?? sayStandard(f.standard)
}
const match = computed(() => (props.read.is === 'parts' ? matchOfParts(props.read.parts) : null))
const head = computed(() => {
  const { usual, less } = fits.value
  const total = DRIVETRAIN_STANDARDS.length
  if (!usual.length && !less.length) return 'No drivetrain of the table has so many: measure it, or type its figures.'
  if (props.seen.sprockets === null) return 'Count the sprockets, and the list gets short.'
  return `Fits what you see: ${usual.length || less.length} of ${total}. Most often here first.`
})
</script>

<template>
  <section class="mat p-3" aria-label="Its drivetrain">
    <p class="mb-2 flex flex-wrap items-baseline justify-between gap-x-4 text-[0.9375rem] text-mat-soft">
      <span data-test="fits-head">{{ head }}</span>
      <button v-if="hidden > 0" type="button" class="quiet -my-2 text-white" data-test="fits-all" @click="all = true">
        {{ hidden }} more
      </button>
    </p>
    <div class="grid grid-cols-2 gap-2 lg:grid-cols-3">
      <button
        v-for="f in list"
        :key="f.standard.id"
        type="button"
        class="fit"
        :class="{ taken: chosen === f.standard.id }"
        :aria-pressed="chosen === f.standard.id"
        :data-test="`fit-${f.standard.id}`"
        @click="emit('choose', f.standard.id)"
      >
        <span class="flex justify-between gap-2"
          ><b>{{ named(f) }}</b><span v-if="f.used" class="shrink-0 text-[0.875rem]">{{ f.used }} here</span></span
        ><span class="figure text-[0.875rem]">{{ standardFigures(f.standard) }}</span>
      </button>
      <button
        v-if="!now"
        type="button"
        class="fit"
        :class="{ taken: chosen === null }"
        :aria-pressed="chosen === null"
        data-test="fit-open"
        @click="emit('choose', null)"
      >
        <b>Find out at the stand</b><span class="text-[0.875rem]">asked before the first turn</span>
      </button>
    </div>
    <p class="mt-2 flex flex-wrap items-center justify-between gap-x-3 text-[0.9375rem]">
      <span
        v-if="chosen !== null && match"
        :class="match.verdict === 'works' ? 'text-mat-clean' : 'text-mat-stop'"
        data-test="fits-match"
        >{{ match.words }}</span
      ><span v-else />
      <span class="flex gap-1">
        <button
          type="button"
          class="quiet text-white underline"
          :aria-expanded="way === 'figures'"
          data-test="figures"
          @click="emit('way', way === 'figures' ? 'fits' : 'figures')"
        >
          {{ way === 'figures' ? 'Close the figures' : 'Its figures' }}
        </button>
        <button
          type="button"
          class="quiet text-white underline"
          :aria-expanded="way === 'measure'"
          data-test="measure-parts"
          @click="emit('way', way === 'measure' ? 'fits' : 'measure')"
        >
          {{ way === 'measure' ? 'Done measuring' : 'Measure it' }}
        </button>
      </span>
    </p>
  </section>
</template>

<style scoped>
.fit {
  display: flex;
  flex-direction: column;
  justify-content: center;
  min-height: 52px;
  padding: 4px 12px;
  border: 2px solid var(--mat-clean);
  border-radius: 6px;
  color: var(--mat-ink);
  text-align: left;
  line-height: 1.25;
}
.fit.taken {
  background: var(--mat-ink);
  color: var(--mat);
  border-color: var(--mat-ink);
}
</style>
