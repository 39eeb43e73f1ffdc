<!-- The wall: rolls and offcuts, what to cut from which, and the labels to print. -->
<script setup lang="ts">
import { z } from 'zod'
import { HOUSINGS, Housing } from '#core/cable/housing'
import type { ToCut } from '#core/cable/cutList'
import { sayWaste } from '#core/cable/cutWords'
import { pickList } from '#core/cable/pickList'
import { farEndOf } from '#core/ledger/farEnd'
import { NewStock } from '#core/http/cables'
import { line } from '#core/http/words'
import { typedNumber } from '#core/quantity/typed'
import { within } from '#core/quantity/within'
import type { Cutting } from '~/composables/cutting'
import { countOf } from '#core/quantity/words'

export type Wanted = ToCut & { kind: Housing }
const props = defineProps<{ cutting: Cutting }>()
const { taken, bikes, stock, wanted, answers, all, extras, trouble, said, busy } = props.cutting
const WHICH = [
  { value: false, words: 'This bike', test: 'this' },
  { value: true, words: 'All open bikes', test: 'all' },
]
const ROLLS = [
  { value: true, words: 'a roll' },
  { value: false, words: 'an offcut' },
]
const firstStock: { kind: Housing; lengthMm: string; label: string; roll: boolean } = {
  kind: 'shift 4 mm',
  lengthMm: '',
  label: '',
  roll: true,
}
const item = useEntryForm({
  initial: firstStock,
  schema: NewStock,
  read: typed => ({ ...typed, lengthMm: typedNumber(typed.lengthMm) }),
  done: async (_, typed) => {
    await props.cutting.add({ ...typed, lengthMm: typedNumber(typed.lengthMm) })
    item.form.setFieldValue('lengthMm', '')
    item.form.setFieldValue('label', '')
  },
})
const typedItem = item.form.useStore(s => s.values)
const Extra = z.object({
  kind: Housing,
  lengthMm: within('Length, mm', 1, 10_000).int('Length: whole mm'),
  name: line('Name', 60).refine(name => !wanted.value.some(w => w.name.toLowerCase() === name.toLowerCase()), {
    error: issue => `Two pieces are called ${String(issue.input)}: give each its own name`,
  }),
})
const extra = useEntryForm({
  initial: { name: '', lengthMm: '' },
  schema: Extra,
  read: typed => ({ name: typed.name, lengthMm: typedNumber(typed.lengthMm), kind: typedItem.value.kind }),
  done: piece => {
    extras.value.push(piece)
    extra.form.reset()
  },
})
const plans = computed(() =>
  Object.entries(answers.value).flatMap(([kind, a]) => (a.is === 'ready' ? [{ kind, plan: a.plan }] : [])),
)
const thinking = computed(() => Object.values(answers.value).some(a => a.is === 'thinking'))
const failed = computed(() => Object.values(answers.value).flatMap(a => (a.is === 'failed' ? [a.message] : [])))
function sayItem(id: string): string {
  const s = stock.value?.find(x => x.id === id)
  return s ? `${s.label || (s.roll ? 'roll' : 'offcut')}, ${s.lengthMm} mm` : 'gone'
}
const lengthOf = (name: string) => wanted.value.find(w => w.name === name)?.lengthMm
const openTaken = (e: Event) => {
  if ((e.target as HTMLDetailsElement).open && !props.cutting.taken.value) void props.cutting.loadTaken()
}
const picks = computed(() => pickList(bikes.value, stock.value ?? [], farEndOf))
const nothingToPick = computed(() => picks.value.inners.length + picks.value.housing.length === 0)
const print = () => window.print()
const session = useSession()
const zone = computed(() => session.now?.shop.zone ?? 'UTC')
</script>

<template>
  <div class="grid gap-3">
    <ChoiceRow
      :model-value="all"
      label="Of which bikes"
      :choices="WHICH"
      test="cut"
      @update:model-value="on => cutting.allBikes(on === true)"
    />
    <p v-if="!wanted.length" class="text-soft">No housing is planned yet: lay out a run first, or add a piece.</p>
    <ul v-else class="border-t border-rule">
      <li v-for="w in wanted" :key="w.name" class="grid grid-cols-[1fr_auto] gap-2 border-b border-rule py-1">
        <span>{{ w.name }} <span class="small">{{ w.kind }}</span></span
        ><span class="figure">{{ w.lengthMm }}</span>
      </li>
    </ul>
    <button
      type="button"
      class="act justify-center"
      :disabled="!wanted.length || !stock"
      data-test="work-out"
      @click="cutting.workOut"
    >
      {{ thinking ? 'Working it out' : 'What to cut from which' }}
    </button>
    <p v-for="f in failed" :key="f" class="stopped" role="alert">{{ f }}</p>
    <section v-for="p in plans" :key="p.kind" class="border-t-2 border-ink pt-2" data-test="plan">
      <h2 class="font-bold">{{ p.kind }}</h2>
      <ul>
        <li v-for="c in p.plan.cuts" :key="c.id" class="border-b border-rule py-1.5">
          <b class="figure">{{ sayItem(c.id) }}</b
          ><span class="block">{{ c.pieces.map(n => `${n} ${lengthOf(n)}`).join(', ') }}</span
          ><span class="small">{{ c.leftMm }} mm left, {{ c.keep ? 'back on the wall' : 'scrap' }}</span>
        </li>
      </ul>
      <p v-if="p.plan.short.length" class="stopped mt-1" data-test="short">
        To order: {{ p.plan.short.map(s => `${s.name} ${s.lengthMm} mm`).join(', ') }}
      </p>
      <p v-if="p.plan.cuts.length" class="small">
        {{ sayWaste(p.plan) }}
      </p>
    </section>
    <div v-if="plans.some(p => p.plan.cuts.length)" class="flex flex-wrap gap-2">
      <button
        type="button"
        class="act flex-1 justify-center"
        :disabled="busy"
        data-test="cut-done"
        @click="cutting.done"
      >
        It is cut</button
      ><button type="button" class="also" @click="print">Print labels</button>
    </div>
    <p v-if="said" class="font-semibold text-clean" role="status" data-test="cut-said">{{ said }}</p>
    <p v-if="trouble" class="stopped" role="alert" data-test="cut-trouble">{{ trouble }}</p>
    <details class="border-t border-rule pt-1">
      <summary class="min-h-11 cursor-pointer py-2 font-semibold" data-test="pick-list">
        Pick list{{ all ? ', all open bikes' : '' }}
      </summary>
      <p v-if="nothingToPick" class="text-soft">Nothing is wanted: no run is laid out, or all are fitted.</p>
      <ul v-else data-test="picks">
        <li
          v-for="i in picks.inners"
          :key="`${i.wire}${i.takeMm}${i.head}${i.runs[0]}`"
          class="border-b border-rule py-1"
        >
          <b>{{ i.runs.length }} × {{ i.wire }} inner, </b
          ><b class="figure">{{ i.takeMm === null ? `${i.needMm} mm to order` : `${i.takeMm} mm` }}</b
          ><span class="small block">{{ i.head ?? 'pear or large barrel: look' }}; {{ i.runs.join(', ') }}</span>
        </li>
        <li v-for="h in picks.housing" :key="h.kind" class="flex justify-between border-b border-rule py-1">
          <span>{{ h.kind }}, {{ countOf(h.pieces, 'piece') }}</span><b class="figure">{{ h.mm }} mm</b>
        </li>
        <li class="border-b border-rule py-1">
          <b class="figure">{{ picks.ferrules }}</b> ferrules, <b class="figure">{{ picks.caps }}</b> end caps<template
            v-if="picks.noodles"
            >, <b class="figure">{{ picks.noodles }}</b> noodles</template
          >
        </li>
      </ul>
      <p v-for="l in picks.lacks" :key="l" class="stopped mt-1" data-test="lacks">{{ l }}.</p>
    </details>
    <details class="border-t border-rule pt-1" @toggle="openTaken">
      <summary class="min-h-11 cursor-pointer py-2 font-semibold" data-test="taken">Not cut after all</summary>
      <p v-if="taken === null" class="small" aria-busy="true">Looking at the last week</p>
      <p v-else-if="!taken.length" class="text-soft">Nothing was cut or taken down in the last week.</p>
      <ul v-else>
        <li v-for="x in taken" :key="x.at" class="flex items-center justify-between gap-2 border-b border-rule">
          <span
            ><span class="small block">{{ sayTime(x.at, zone) }}</span
            >{{ x.items.map(i => `${i.lengthMm} ${i.kind}`).join(', ') }}</span
          ><button
            type="button"
            class="quiet text-sm"
            :disabled="busy"
            data-test="put-back"
            @click="cutting.putBack(x.items.map(i => i.id))"
          >
            Put back
          </button>
        </li>
      </ul>
    </details>
    <details class="border-t border-rule pt-1" :open="stock?.length === 0">
      <summary class="min-h-11 cursor-pointer py-2 font-semibold" data-test="wall">
        On the wall, {{ stock?.length ?? 0 }}
      </summary>
      <ul class="mb-2">
        <li v-for="s in stock" :key="s.id" class="flex items-center justify-between gap-2 border-b border-rule">
          <span
            ><b class="figure">{{ s.lengthMm }}</b> {{ s.kind }}
            <span class="small">{{ s.roll ? 'roll' : 'offcut' }} {{ s.label }}</span></span
          ><button type="button" class="quiet text-sm" @click="cutting.drop(s.id)">Gone</button>
        </li>
      </ul>
      <p v-if="stock?.length === 0" class="text-soft">Nothing hangs there yet.</p>
      <form class="grid gap-2" novalidate @submit.prevent="item.form.handleSubmit()">
        <label class="label"
          >Housing<select
            class="field"
            :value="typedItem.kind"
            data-test="stock-kind"
            @change="item.form.setFieldValue('kind', ($event.target as HTMLSelectElement).value as Housing)"
          >
            <option v-for="h in HOUSINGS" :key="h" :value="h">{{ h }}</option>
          </select></label
        >
        <div class="grid grid-cols-2 gap-2">
          <FormLine
            :of="item"
            name="lengthMm"
            label="Length, mm"
            mono
            inputmode="numeric"
            test="stock-length"
          /><FormLine :of="item" name="label" label="Label" />
        </div>
        <ChoiceRow
          :model-value="typedItem.roll"
          label="Roll or offcut"
          :choices="ROLLS"
          test="stock-roll"
          @update:model-value="r => item.form.setFieldValue('roll', r === true)"
        />
        <button class="also justify-center" data-test="stock-add">Hang it up</button>
      </form>
    </details>
    <details class="border-t border-rule pt-1">
      <summary class="min-h-11 cursor-pointer py-2 font-semibold">Another piece</summary>
      <form class="grid gap-2" novalidate @submit.prevent="extra.form.handleSubmit()">
        <div class="grid grid-cols-2 gap-2">
          <FormLine :of="extra" name="name" label="Name" /><FormLine
            :of="extra"
            name="lengthMm"
            label="Length, mm"
            mono
            inputmode="numeric"
          />
        </div>
        <button class="also justify-center" data-test="extra-add">Add it to the list</button>
      </form>
    </details>
  </div>
</template>
