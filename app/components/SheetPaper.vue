<!-- The setup sheet as it prints on one A4 page. -->
<script setup lang="ts">
import type { JobView } from '#core/http/job'
import { BRAKE_WORDS } from '#core/brake/chapter'
import { BRAKES, type Brake } from '#core/brake/kinds'
import { brakeOnSheet, headOfSheet, type Sheet } from '#core/ledger/sheet'

const props = defineProps<{ job: JobView; sheet: Sheet; shop: string; zone: string; draft: boolean }>()
const name = (id: string) => props.job.people[id] ?? 'someone'
function proof(brake: Brake): string {
  const told = brakeOnSheet(props.sheet, brake)
  return [told.words, told.by && name(told.by), told.at && sayTime(told.at, props.zone)].filter(Boolean).join(', ')
}
const warning = computed(() => headOfSheet(props.sheet))
</script>

<template>
  <article class="paper" data-test="paper">
    <div v-if="warning" class="warning" data-test="sheet-warning">
      <p class="text-xl font-bold uppercase">{{ warning.title }}</p>
      <p>{{ warning.words }}</p>
    </div>
    <header class="flex items-start justify-between gap-4 border-b-2 border-current pb-2">
      <div>
        <p class="text-2xl font-bold">Setup sheet</p>
        <p>{{ shop }}</p>
      </div>
      <div class="text-right">
        <p class="figure text-2xl font-semibold">Tag {{ job.tag }}</p>
        <p>Job {{ job.number }}{{ draft ? ', draft' : '' }}</p>
      </div>
    </header>
    <dl class="mt-3 grid grid-cols-[8rem_1fr] gap-y-0.5">
      <dt>Customer</dt>
      <dd class="font-semibold">
        {{ job.customer.name }}{{ job.customer.contact ? `, ${job.customer.contact}` : '' }}
      </dd>
      <dt>Bike</dt>
      <dd class="font-semibold">
        {{ job.bike.name }}{{ job.bike.frameNumber ? `, frame ${job.bike.frameNumber}` : '' }}
      </dd>
      <dt>Said</dt>
      <dd>“{{ job.complaint }}”</dd>
      <dt>Drivetrain</dt>
      <dd class="figure">{{ sheet.drivetrain }}</dd>
      <template v-if="sheet.parts"
        ><dt />
        <dd class="figure">{{ sheet.parts.cassette.teeth.join(' ') }}</dd></template
      >
      <template v-for="n in sheet.numbers" :key="n.what"
        ><dt>{{ n.what }}</dt>
        <dd class="figure">{{ n.figure }}</dd></template
      >
    </dl>
    <div class="mt-3 grid gap-x-8 gap-y-3 sm:grid-cols-2 print:grid-cols-2">
      <section
        v-for="part in [
          { title: 'Found', facts: sheet.found },
          { title: 'Done', facts: sheet.done },
          { title: 'Left', facts: sheet.left },
        ]"
        :key="part.title"
      >
        <h2 class="border-b border-current font-bold">{{ part.title }}</h2>
        <dl v-if="part.facts.length">
          <div v-for="(f, i) in part.facts" :key="i" class="flex justify-between gap-3">
            <dt>{{ f.what }}</dt>
            <dd class="figure text-right">{{ f.figure }}</dd>
          </div>
        </dl>
        <p v-else>nothing noted</p>
      </section>
      <section>
        <h2 class="border-b border-current font-bold">Brakes</h2>
        <dl>
          <div v-for="b in BRAKES" :key="b" class="flex justify-between gap-3">
            <dt>{{ BRAKE_WORDS[b] }}</dt>
            <dd class="text-right">{{ proof(b) }}</dd>
          </div>
        </dl>
      </section>
    </div>
    <section v-if="job.notes.length" class="mt-3">
      <h2 class="border-b border-current font-bold">In words</h2>
      <p v-for="n in job.notes" :key="n.id">
        {{ n.text }} <span class="opacity-75">{{ n.by }}</span>
      </p>
    </section>
    <footer class="mt-4 border-t-2 border-current pt-2">
      <p v-if="sheet.recallOn" class="font-bold">Settle-in recall {{ sayDay(sheet.recallOn) }}.</p>
      <p v-for="t in sheet.tell" :key="t">{{ t }}</p>
      <p>
        {{ draft ? 'Would be signed' : 'Handed back' }} by {{ name(sheet.by) }}, {{ sayTime(sheet.closedAt, zone) }}.
        The maker’s instructions and local law win over this sheet.
      </p>
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
}
@media print {
  .paper {
    border: 0;
    padding: 0;
    max-width: none;
    break-inside: avoid;
  }
}
</style>
