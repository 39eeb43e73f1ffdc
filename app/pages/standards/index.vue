<script setup lang="ts">
import { RadioGroup, RadioGroupOption } from '@headlessui/vue'
import {
  columnFilteringFeature,
  createFilteredRowModel,
  createSortedRowModel,
  filterFn_includesString,
  globalFilteringFeature,
  rowSortingFeature,
  sortFn_alphanumeric,
  tableFeatures,
  useTable,
  type ColumnDef,
} from '@tanstack/vue-table'
import { Provenance } from '#core/quantity/provenance'
import { DRIVETRAIN_STANDARDS, sayStandard } from '#core/standards/drivetrains'
import { meanOf, sayValue } from '#core/standards/entry'
import { FIGURES, KIND_WORDS, KINDS, type Kind } from '#core/standards/kinds'
import { inForceFigure, type EntryInForce, type FigureInForce } from '#core/standards/shopValues'
import type { Pictured } from '~/drawings/DoorPicture.vue'

useHead({ title: 'Standards · Ocho' })
const { catalogue, error, set } = await useCatalogue()
const route = useRoute()
const kind = ref<Kind>(KINDS.find(k => k === route.query.kind) ?? 'shifter')
const words = ref('')
const entries = computed(() => catalogue.value.filter(e => e.kind === kind.value))
/** Kinds of which a shop may add parts of its own. */
const ownKind = computed(() =>
  kind.value === 'shifter' || kind.value === 'derailleur' || kind.value === 'cassette' ? kind.value : null,
)
const rules = computed(() => FIGURES[kind.value].filter(rule => entries.value.some(e => inForceFigure(e, rule.key))))

const features = tableFeatures({
  columnFilteringFeature,
  globalFilteringFeature,
  rowSortingFeature,
  filteredRowModel: createFilteredRowModel(),
  sortedRowModel: createSortedRowModel(),
  filterFns: { includesString: filterFn_includesString },
  sortFns: { alphanumeric: sortFn_alphanumeric },
})
type Column = ColumnDef<typeof features, EntryInForce>
const columns = computed<Column[]>(() => [
  {
    id: 'name',
    header: 'Name',
    accessorFn: (e: EntryInForce) => `${e.nickname ?? ''} ${e.id} ${e.title} ${named(e)}`,
    sortFn: 'alphanumeric',
    filterFn: 'includesString',
  } as Column,
  ...rules.value.map(
    (rule): Column =>
      ({
        id: rule.key,
        header: rule.unit ? `${rule.what}, ${rule.unit}` : rule.what,
        accessorFn: (e: EntryInForce) => {
          const f = inForceFigure(e, rule.key)
          return f ? meanOf(f.value) : undefined
        },
        sortUndefined: 'last',
        enableGlobalFilter: false,
      }) as Column,
  ),
])
const table = useTable({
  features,
  columns,
  data: entries,
  globalFilterFn: 'includesString',
  enableSortingRemoval: true,
} as Parameters<typeof useTable<typeof features, EntryInForce>>[0])
watch(words, w => table.setGlobalFilter(w))
const rows = computed(() => table.getRowModel().rows)
const sortOf = (id: string) => table.getColumn(id)?.getIsSorted()

const chosen = ref('')
const other = ref('')
const entry = computed(() => entries.value.find(e => e.id === chosen.value) ?? null)
const against = computed(() => entries.value.find(e => e.id === other.value && e.id !== chosen.value) ?? null)
const comparing = ref(false)
/** A touch chooses; while two are compared, the touch chooses the second. */
function touch(e: EntryInForce) {
  if (comparing.value && chosen.value && e.id !== chosen.value) other.value = e.id
  else {
    chosen.value = e.id
    other.value = ''
  }
}
function goTo(k: Kind) {
  kind.value = k
  chosen.value = other.value = ''
  comparing.value = false
  adding.value = false
  table.resetSorting(true)
}
const adding = ref(false)
function addOwn() {
  adding.value = true
  chosen.value = ''
}
function added(id: string) {
  adding.value = false
  chosen.value = id
}
function stopComparing() {
  other.value = ''
  comparing.value = false
}
/** A long list shows its ends; the detail beside has it whole. */
const short = (f: FigureInForce) =>
  typeof f.value === 'object' && f.value.length > 3 ? `${f.value[0]} … ${f.value.at(-1)}` : sayValue(f.value, f.rule)
/** A picture of what can be counted on it, where there is one. */
function pictured(e: EntryInForce): Pictured | null {
  const speeds = inForceFigure(e, 'speeds')
  if (speeds) return { of: 'sprockets', is: Math.round(meanOf(speeds.value)) }
  const standard = DRIVETRAIN_STANDARDS.find(s => s.id === e.id)
  return standard && e.kind === 'derailleur' ? { of: 'sprockets', is: standard.speeds } : null
}
/** The shop's own name, else what people call it; a code is small beside it. */
function named(e: EntryInForce): string {
  const standard = own.value && !e.own ? DRIVETRAIN_STANDARDS.find(s => s.id === e.id) : undefined
  return e.nickname ?? (standard ? sayStandard(standard) : e.title)
}
const count = (k: Kind) => catalogue.value.filter(e => e.kind === k).length
const own = computed(() => kind.value === 'shifter' || kind.value === 'derailleur' || kind.value === 'cassette')
const side = useTemplateRef<HTMLElement>('side')
watch(chosen, async id => {
  if (id && window.innerWidth < 1024) {
    await nextTick()
    side.value?.scrollIntoView({ block: 'start' })
  }
})
</script>

<template>
  <div>
    <PageHead title="Standards"><StandardsNav /></PageHead>
    <main
      class="mx-auto grid max-w-[1440px] gap-x-6 gap-y-4 px-4 py-4 sm:px-6 lg:grid-cols-[13.5rem_minmax(0,1fr)_21rem]"
    >
      <p v-if="error" class="stopped lg:col-span-3" role="alert">{{ OFFLINE_WORDS }}</p>
      <RadioGroup
        as="div"
        aria-label="Kinds"
        class="flex gap-1 overflow-x-auto lg:grid lg:content-start lg:gap-0 lg:overflow-visible"
        :model-value="kind"
        @update:model-value="goTo"
      >
        <RadioGroupOption v-for="k in KINDS" :key="k" v-slot="{ checked }" as="template" :value="k">
          <button
            type="button"
            class="flex min-h-11 shrink-0 items-center justify-between gap-3 border-b-4 px-2 text-left whitespace-nowrap lg:border-b-0 lg:border-l-[6px]"
            :class="checked ? 'border-ink font-bold' : 'border-transparent'"
            :data-test="`kind-${k}`"
          >
            {{ KIND_WORDS[k].many }}<span class="figure text-soft">{{ count(k) }}</span>
          </button>
        </RadioGroupOption>
      </RadioGroup>
      <section class="min-w-0" :aria-label="KIND_WORDS[kind].many">
        <div class="mb-2 flex flex-wrap items-center gap-2">
          <label class="sr-only" for="filter">Filter by name or numbers</label>
          <input
            id="filter"
            v-model="words"
            class="field min-w-40 flex-1"
            placeholder="Filter by name or numbers"
            autocomplete="off"
            data-test="filter"
          />
          <button v-if="own" type="button" class="also" data-test="add-own" @click="addOwn">Add your own</button>
        </div>
        <div class="overflow-x-auto border-t-2 border-ink bg-panel">
          <table class="w-full border-collapse text-[0.9375rem]">
            <thead>
              <tr>
                <th
                  v-for="c in table.getAllLeafColumns()"
                  :key="c.id"
                  class="border-b border-rule p-0 align-bottom"
                  :class="c.id === 'name' ? 'text-left' : 'text-right'"
                  :aria-sort="sortOf(c.id) === 'asc' ? 'ascending' : sortOf(c.id) === 'desc' ? 'descending' : 'none'"
                >
                  <button
                    type="button"
                    class="min-h-11 w-full px-2 py-1 leading-tight font-semibold"
                    :class="c.id === 'name' ? 'text-left' : 'text-right'"
                    :data-test="`sort-${c.id}`"
                    @click="c.toggleSorting()"
                  >
                    {{ c.columnDef.header
                    }}<span aria-hidden="true" class="figure">{{
                      sortOf(c.id) === 'asc' ? ' ↑' : sortOf(c.id) === 'desc' ? ' ↓' : ''
                    }}</span>
                  </button>
                </th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="r in rows"
                :key="r.original.id"
                class="cursor-pointer border-b border-rule"
                :class="{ 'bg-ground': r.original.id === chosen || r.original.id === other }"
                @click="touch(r.original)"
              >
                <th scope="row" class="min-w-52 p-0 text-left font-normal">
                  <button
                    type="button"
                    class="flex min-h-12 w-full items-center gap-x-2 border-l-[6px] px-2 py-1 text-left"
                    :class="
                      r.original.id === chosen
                        ? 'border-ink'
                        : r.original.id === other
                          ? 'border-soft'
                          : 'border-transparent'
                    "
                    :data-test="`entry-${r.original.id}`"
                    @click.stop="touch(r.original)"
                  >
                    <DoorPicture v-if="pictured(r.original)" :what="pictured(r.original)!" /><span class="leading-tight"
                      ><b class="block">{{ named(r.original) }}</b
                      ><span class="figure text-sm text-soft">{{ r.original.id }}</span></span
                    >
                  </button>
                </th>
                <td
                  v-for="f in rules.map(rule => inForceFigure(r.original, rule.key))"
                  :key="f?.key"
                  class="px-2 text-right leading-tight whitespace-nowrap"
                >
                  <span v-if="f" class="inline-flex items-center gap-2"
                    ><span class="figure" :class="{ 'font-semibold': f.provenance === 'shop' }">{{ short(f) }}</span
                    ><ProvenanceMark :of="f.provenance" :source="f.source"
                  /></span>
                  <span v-else class="text-soft">–</span>
                </td>
              </tr>
              <tr v-if="!rows.length">
                <td :colspan="rules.length + 1" class="p-4 text-soft">
                  Nothing of that name or number among the {{ KIND_WORDS[kind].many.toLowerCase() }}.
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p class="small mt-2">
          Where a figure comes from, and its words on touch of a row:
          <span class="flex flex-wrap gap-x-3"
            ><ProvenanceMark v-for="p in Provenance.options" :key="p" :of="p" full
          /></span>
          What was measured here beats the others; the maker’s instructions win.
        </p>
      </section>
      <aside ref="side" class="grid content-start gap-3 border-rule lg:border-l lg:pl-5" aria-label="Chosen">
        <OwnPart
          v-if="adding && ownKind"
          :kind="ownKind"
          :taken="entries.map(e => e.id)"
          @set="set"
          @close="adding = false"
          @added="added"
        />
        <CompareEntries v-else-if="entry && against" :one="entry" :other="against" @close="stopComparing" />
        <template v-else-if="entry">
          <EntryDetail :key="`${entry.kind}/${entry.id}`" :entry="entry" @set="set" />
          <button
            type="button"
            class="also justify-center"
            :aria-pressed="comparing"
            :class="{ 'bg-act! text-act-ink!': comparing }"
            data-test="compare"
            @click="comparing = !comparing"
          >
            {{ comparing ? 'Touch the other one' : 'Compare with another' }}
          </button>
        </template>
        <p v-else class="text-soft">Touch a row for its figures, where they come from, and to add what you measured.</p>
      </aside>
    </main>
  </div>
</template>
