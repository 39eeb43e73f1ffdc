<!-- The head of a job, the same on every bench: which bike, what was said, whether all is saved, who works; and its
     parts. -->
<script setup lang="ts">
import Undo2 from '@lucide/vue/dist/esm/icons/undo-2.mjs'
import type { JobPart, Opinions } from '#core/ledger/parts'
import type { Bench } from '~/composables/bench'

defineProps<{
  /** The part that this page is about; null on the job's own page. */
  here: JobPart | null
  /** What this page believes of some parts. */
  opinions?: Opinions
  /** Whose last touch is taken back from here, where a small screen has the path and its Take back out of sight. */
  bench?: Bench
}>()
const session = useSession()
const { state, record, waiting, number } = storeToRefs(useLedger())
const zone = computed(() => session.now?.shop.zone ?? 'UTC')
const late = computed(() => record.value && !record.value.closedAt && new Date(record.value.promisedAt) < new Date())
</script>

<template>
  <header class="job-top no-print">
    <div class="line">
      <NuxtLink to="/" class="home" aria-label="Ocho, to the Floor"><TheMark /></NuxtLink>
      <NuxtLink
        :to="`/jobs/${number}`"
        class="bike"
        data-test="to-job"
        :aria-current="here === null ? 'page' : undefined"
      >
        <h1 class="figure font-semibold whitespace-nowrap">Tag {{ record?.tag ?? '' }}</h1>
        <b class="min-w-0 truncate">{{ record?.bike.name }}</b>
        <span v-if="record" class="hidden min-w-0 truncate text-soft md:inline"
          >{{ record.customer.name }}, “{{ record.complaint }}”</span
        ><span class="sr-only">, the job</span>
      </NuxtLink>
      <span v-if="record" class="ml-auto hidden whitespace-nowrap lg:inline" :class="{ 'font-bold text-stop': late }"
        >promised <b>{{ sayWhen(record.promisedAt, zone) }}</b></span
      >
      <span
        class="font-semibold whitespace-nowrap max-lg:ml-auto"
        :class="waiting.length ? 'text-stop' : 'text-clean'"
        role="status"
        data-test="saved"
        >{{ waiting.length ? `${waiting.length} waiting` : 'saved' }}</span
      >
      <button
        v-if="bench?.undoes.value"
        type="button"
        class="undo"
        :aria-label="`Take back: ${bench.undoes.value}`"
        data-test="undo-top"
        @click="bench.undo"
      >
        <Undo2 :size="22" aria-hidden="true" />
      </button>
      <PersonMenu />
    </div>
    <p v-if="bench?.tookBack.value" class="took" aria-hidden="true" data-test="took-back-top">
      Taken back: {{ bench.tookBack.value }}
    </p>
    <PartsRow v-if="record" :number="number" :state="state" :here="here" :opinions="opinions ?? {}" />
  </header>
</template>

<style scoped>
.job-top {
  grid-area: top;
  min-width: 0;
}
.line {
  display: flex;
  align-items: center;
  gap: 14px;
  height: 48px;
  padding: 0 16px;
  background: var(--panel);
  border-bottom: 1px solid var(--rule);
  overflow: hidden;
}
.home {
  display: flex;
  align-items: center;
  justify-content: center;
  min-width: 44px;
  min-height: 44px;
  margin-left: -10px;
  color: var(--ink);
}
.bike {
  display: flex;
  align-items: baseline;
  gap: 10px;
  min-width: 0;
  min-height: 44px;
  line-height: 44px;
}
.undo,
.took {
  display: none;
}
/* where there is height for it, the bike, its parts and Take back stay in reach */
@media (max-width: 1000px) and (min-height: 700px) {
  .job-top {
    position: sticky;
    top: 0;
    z-index: 10;
    background: var(--ground);
  }
  /* what is gone to by key or link stops below it */
  :global(html:has(.job-top)) {
    scroll-padding-top: 120px;
  }
}
@media (max-width: 1000px) {
  .line {
    gap: 10px;
    padding: 0 12px;
  }
  .undo {
    display: flex;
    align-items: center;
    justify-content: center;
    min-width: 44px;
    min-height: 44px;
    margin: 0 -8px;
  }
  .took {
    display: block;
    position: absolute;
    inset-inline: 0;
    z-index: 10;
    padding: 6px 12px;
    background: var(--panel);
    border-bottom: 1px solid var(--rule);
    font-weight: 600;
    color: var(--clean);
  }
}
</style>
