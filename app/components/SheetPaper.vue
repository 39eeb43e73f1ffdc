<!-- A job's paper as it prints on one A4 page: what does not fit says how much more there is. -->
<script setup lang="ts">
import type { JobView } from '#core/http/job'
import { codeAtHead, moreWords, paperOf, type PaperKind } from '#core/paper/paper'
import type { Sheet } from '#core/ledger/sheet'

const props = defineProps<{
  kind: PaperKind
  job: JobView
  sheet: Sheet
  shop: string
  zone: string
  draft: boolean
}>()
const paper = computed(() =>
  paperOf(props.kind, props.job, props.sheet, props.draft, { time: iso => sayTime(iso, props.zone), day: sayDay }),
)
</script>

<template>
  <article class="paper" data-test="paper">
    <div v-if="paper.warning" class="warning" data-test="sheet-warning">
      <p class="text-xl font-bold uppercase">{{ paper.warning.title }}</p>
      <p>{{ paper.warning.words }}</p>
    </div>
    <header class="flex items-start justify-between gap-4 border-b-2 border-current pb-1">
      <div>
        <p class="text-2xl font-bold print:text-xl">{{ paper.title }}</p>
        <p>{{ shop }}</p>
      </div>
      <div class="text-right">
        <p class="figure text-2xl font-semibold print:text-xl">Tag {{ job.tag }}</p>
        <p>Job {{ job.number }}{{ draft ? ', draft' : '' }}</p>
      </div>
    </header>
    <div class="flex flex-wrap items-start justify-between gap-x-2">
      <dl class="rows mt-2 min-w-[min(18rem,100%)] flex-1">
        <template v-for="r in paper.head" :key="r.what"
          ><dt>{{ r.what }}</dt>
          <dd :class="{ figure: kind === 'setup' }">{{ r.figure }}</dd></template
        >
      </dl>
      <LazySetupCodes v-if="codeAtHead(paper)" :codes="paper.codes" :card="[]" />
    </div>
    <section v-for="s in paper.sections" :key="s.title" class="mt-2">
      <h2 class="border-b border-current font-bold">{{ s.title }}</h2>
      <dl v-if="s.rows.length" class="rows">
        <template v-for="(r, i) in s.rows" :key="i">
          <template v-if="r.what"
            ><dt>{{ r.what }}</dt>
            <dd :class="{ figure: kind === 'setup' }">{{ r.figure }}</dd></template
          >
          <dd v-else class="whole">{{ r.figure }}</dd>
        </template>
      </dl>
      <p v-else-if="!s.more">nothing noted</p>
      <p v-if="s.more" class="font-bold" data-test="more">{{ moreWords(s.more) }}</p>
    </section>
    <section v-if="paper.brakes.length" class="mt-2">
      <h2 class="border-b border-current font-bold">Brakes</h2>
      <dl class="rows">
        <template v-for="r in paper.brakes" :key="r.what"
          ><dt>{{ r.what }}</dt>
          <dd :class="{ figure: kind === 'setup' }">{{ r.figure }}</dd></template
        >
      </dl>
    </section>
    <LazySetupCodes
      v-if="!codeAtHead(paper) && (paper.codes.length || paper.card.length)"
      :codes="paper.codes"
      :card="paper.card"
    />
    <footer class="mt-2 border-t-2 border-current pt-1">
      <p v-for="t in paper.foot" :key="t">{{ t }}</p>
      <p>{{ paper.signed }}</p>
    </footer>
  </article>
</template>

<style scoped>
.paper {
  background: var(--paper);
  color: var(--paper-ink);
  padding: 24px 28px;
  border: 1px solid var(--rule);
  max-width: 800px;
}
.rows {
  display: grid;
  grid-template-columns: 11rem minmax(0, 1fr);
}
.rows > .whole {
  grid-column: 1 / -1;
}
.rows > * {
  overflow-wrap: anywhere;
}
.warning {
  border: 3px solid var(--paper-stop);
  color: var(--paper-stop);
  padding: 8px 12px;
  margin-bottom: 14px;
}
@media (max-width: 600px) {
  .paper {
    padding: 14px;
  }
  .rows {
    grid-template-columns: 8rem minmax(0, 1fr);
  }
}
/* as in the PDF: lines of 10 points, so that what was counted for one page is one page */
@media print {
  .paper {
    border: 0;
    padding: 0;
    max-width: none;
    font-size: 10pt;
    line-height: 1.15;
    break-inside: avoid;
  }
  .rows {
    grid-template-columns: 48mm minmax(0, 1fr);
  }
}
</style>
