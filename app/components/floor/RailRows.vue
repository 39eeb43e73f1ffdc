<!-- Bikes that wait, on rails by what was promised; each rail scrolls sideways, so that the stands stay in sight. -->
<script setup lang="ts">
import ArrowDownToLine from '@lucide/vue/dist/esm/icons/arrow-down-to-line.mjs'
import type { FloorJob } from '#core/http/floor'
import { WAITS_WORDS } from '#core/job/events'
import { RAIL_WORDS, railsOf } from '#core/job/rails'
import { countOf } from '#core/quantity/words'

const props = defineProps<{ jobs: readonly FloorJob[]; zone: string; now: Date }>()
const emit = defineEmits<{ move: [job: FloorJob] }>()
const rails = computed(() => railsOf(props.jobs, props.now, props.zone))
const many = (n: number) => countOf(n, 'bike')
</script>

<template>
  <div class="grid gap-1">
    <section v-for="r in rails" :key="r.rail" class="row" :aria-label="`${RAIL_WORDS[r.rail]}, ${many(r.jobs.length)}`">
      <h3 class="head" :class="{ 'text-stop': r.rail === 'late' }">
        {{ RAIL_WORDS[r.rail] }}<span class="small block">{{ many(r.jobs.length) }}</span>
      </h3>
      <ul class="hooks" tabindex="0" :aria-label="`${RAIL_WORDS[r.rail]}, scrolls sideways`">
        <li v-for="j in r.jobs" :key="j.number" class="tagged" :class="{ late: r.rail === 'late' }">
          <NuxtLink
            :to="j.derailleur ? `/jobs/${j.number}/rear` : `/jobs/${j.number}`"
            class="block min-w-0 grow py-1 pl-2.5"
            :data-test="`tag-${j.tag}`"
          >
            <span class="flex items-baseline gap-2"
              ><b class="figure text-lg leading-5">{{ j.tag }}</b
              ><span class="small ml-auto" :class="{ 'text-stop!': r.rail === 'late' }">{{
                r.rail === 'today' || r.rail === 'tomorrow'
                  ? sayClock(j.promisedAt, zone)
                  : sayWhen(j.promisedAt, zone, now)
              }}</span></span
            >
            <span class="block truncate text-[0.9375rem] leading-5"><b>{{ j.bike }}</b>, {{ j.customer }}</span>
            <span v-if="j.waits" class="block truncate text-[0.9375rem] leading-5 font-bold"
              >waits: {{ WAITS_WORDS[j.waits] }}</span
            >
            <span v-else class="block truncate text-[0.9375rem] leading-5 text-soft">“{{ j.complaint }}”</span>
          </NuxtLink>
          <button type="button" class="move" :aria-label="`Move tag ${j.tag}`" @click="emit('move', j)">
            <ArrowDownToLine :size="18" aria-hidden="true" />
          </button>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  align-items: center;
}
.head {
  font-weight: 700;
}
.hooks {
  display: flex;
  gap: 10px;
  overflow-x: auto;
  padding: 10px 6px 2px;
  border-top: 5px solid var(--ink);
  scrollbar-width: thin;
}
.tagged {
  position: relative;
  flex: 0 0 auto;
  display: flex;
  width: 208px;
  min-height: 68px;
  border: 2px solid var(--rule);
  border-radius: 4px;
  background: var(--panel);
}
.tagged::before {
  content: '';
  position: absolute;
  left: 20px;
  top: -13px;
  height: 12px;
  width: 3px;
  background: var(--ink);
}
.tagged.late {
  border-color: var(--stop);
}
.move {
  display: grid;
  place-items: end center;
  padding-bottom: 10px;
  width: 44px;
  color: var(--soft);
}
@media (max-width: 640px) {
  .row {
    grid-template-columns: minmax(0, 1fr);
  }
  .head {
    display: flex;
    gap: 8px;
    align-items: baseline;
  }
}
</style>
