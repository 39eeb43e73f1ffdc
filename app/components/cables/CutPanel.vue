<!-- The wall: rolls and offcuts, what to cut from which, and the labels to print. -->
<script setup lang="ts">
import { typedNumber } from '#core/quantity/typed'
import { HOUSINGS, type Housing } from '#core/cable/housing'
import type { CutPlan, ToCut } from '#core/cable/cutList'
import type { StockView } from '#core/http/cables'
import type { CutAnswer } from '~/workers/useCables'

export type Wanted = ToCut & { kind: Housing }
const props = defineProps<{
  wanted: readonly Wanted[]
  stock: readonly StockView[] | null
  answers: Record<string, CutAnswer>
  all: boolean
  trouble: string
  said: string
  busy: boolean
}>()
const emit = defineEmits<{
  all: [on: boolean]
  work: []
  cut: []
  add: [item: { kind: Housing; lengthMm: number; roll: boolean; label: string }]
  drop: [id: string]
  extra: [piece: Wanted]
}>()
const kind = ref<Housing>('shift 4 mm')
const length = ref('')
const label = ref('')
const roll = ref(true)
const extraName = ref('')
const extraLength = ref('')
const wrong = ref('')
const whole = (t: string, most: number) => {
  const n = typedNumber(t)
  return Number.isInteger(n) && n >= 1 && n <= most ? n : null
}
function add() {
  const lengthMm = whole(length.value, 200_000)
  if (lengthMm === null) return void (wrong.value = 'Length: whole mm from 1 to 200000')
  wrong.value = ''
  emit('add', { kind: kind.value, lengthMm, roll: roll.value, label: label.value.trim() })
  length.value = label.value = ''
}
function extra() {
  const lengthMm = whole(extraLength.value, 10_000)
  if (lengthMm === null || !extraName.value.trim())
    return void (wrong.value = 'A piece needs a name and whole mm from 1 to 10000')
  if (props.wanted.some(w => w.name.toLowerCase() === extraName.value.trim().toLowerCase()))
    return void (wrong.value = `Two pieces are called ${extraName.value.trim()}: give each its own name`)
  wrong.value = ''
  emit('extra', { name: extraName.value.trim(), lengthMm, kind: kind.value })
  extraName.value = extraLength.value = ''
}
const plans = computed(() =>
  Object.entries(props.answers).flatMap(([k, a]) => (a.is === 'ready' ? [{ kind: k, plan: a.plan }] : [])),
)
const thinking = computed(() => Object.values(props.answers).some(a => a.is === 'thinking'))
const failed = computed(() => Object.values(props.answers).flatMap(a => (a.is === 'failed' ? [a.message] : [])))
const item = (id: string) => props.stock?.find(s => s.id === id)
const sayItem = (id: string) => {
  const s = item(id)
  return s ? `${s.label || (s.roll ? 'roll' : 'offcut')}, ${s.lengthMm} mm` : 'gone'
}
const lengthOf = (name: string) => props.wanted.find(w => w.name === name)?.lengthMm
const waste = (plan: CutPlan) =>
  `${plan.scrapMm} mm of scrap${plan.proven ? ', least possible' : `, within ${(100 * (plan.costMm / Math.max(1, plan.boundMm) - 1)).toFixed(1)} % of the bound`}`
const print = () => window.print()
</script>

<template>
  <div class="grid gap-3">
    <div class="grid grid-cols-2 gap-1">
      <button
        v-for="on in [false, true]"
        :key="String(on)"
        type="button"
        class="also min-h-11! justify-center"
        :class="{ 'bg-act! text-act-ink!': all === on }"
        :aria-pressed="all === on"
        :data-test="on ? 'cut-all' : 'cut-this'"
        @click="emit('all', on)"
      >
        {{ on ? 'All open bikes' : 'This bike' }}
      </button>
    </div>
    <p v-if="!wanted.length" class="text-soft">No housing is planned yet: lay out a run first, or add a piece.</p>
    <ul v-else class="border-t border-rule">
      <li v-for="w in wanted" :key="w.name" class="grid grid-cols-[1fr_auto] gap-2 border-b border-rule py-1">
        <span
          >{{ w.name }} <span class="small">{{ w.kind }}</span></span
        ><span class="figure">{{ w.lengthMm }}</span>
      </li>
    </ul>
    <button
      type="button"
      class="act justify-center"
      :disabled="!wanted.length || !stock"
      data-test="work-out"
      @click="emit('work')"
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
      <p v-if="p.plan.cuts.length" class="small">{{ waste(p.plan) }}. 2 mm for each cut and its squaring.</p>
    </section>
    <div v-if="plans.some(p => p.plan.cuts.length)" class="flex flex-wrap gap-2">
      <button
        type="button"
        class="act flex-1 justify-center"
        :disabled="busy"
        data-test="cut-done"
        @click="emit('cut')"
      >
        It is cut</button
      ><button type="button" class="also" @click="print">Print labels</button>
    </div>
    <p v-if="said" class="font-semibold text-clean" role="status" data-test="cut-said">{{ said }}</p>
    <p v-if="trouble || wrong" class="stopped" role="alert" data-test="cut-trouble">{{ trouble || wrong }}</p>
    <details class="border-t border-rule pt-1" :open="stock?.length === 0">
      <summary class="min-h-11 cursor-pointer py-2 font-semibold" data-test="wall">
        On the wall, {{ stock?.length ?? 0 }}
      </summary>
      <ul class="mb-2">
        <li v-for="s in stock" :key="s.id" class="flex items-center justify-between gap-2 border-b border-rule">
          <span
            ><b class="figure">{{ s.lengthMm }}</b> {{ s.kind }}
            <span class="small">{{ s.roll ? 'roll' : 'offcut' }} {{ s.label }}</span></span
          ><button type="button" class="quiet text-sm" @click="emit('drop', s.id)">Gone</button>
        </li>
      </ul>
      <p v-if="stock?.length === 0" class="text-soft">Nothing hangs there yet.</p>
      <form class="grid gap-2" novalidate @submit.prevent="add">
        <label class="label"
          >Housing<select v-model="kind" class="field" data-test="stock-kind">
            <option v-for="h in HOUSINGS" :key="h" :value="h">{{ h }}</option>
          </select></label
        >
        <div class="grid grid-cols-2 gap-2">
          <TextField v-model="length" label="Length, mm" mono inputmode="numeric" /><TextField
            v-model="label"
            label="Label"
          />
        </div>
        <div class="grid grid-cols-2 gap-1">
          <button
            v-for="r in [true, false]"
            :key="String(r)"
            type="button"
            class="also min-h-11! justify-center"
            :class="{ 'bg-act! text-act-ink!': roll === r }"
            :aria-pressed="roll === r"
            @click="roll = r"
          >
            {{ r ? 'a roll' : 'an offcut' }}
          </button>
        </div>
        <button class="also justify-center" data-test="stock-add">Hang it up</button>
      </form>
    </details>
    <details class="border-t border-rule pt-1">
      <summary class="min-h-11 cursor-pointer py-2 font-semibold">Another piece</summary>
      <form class="grid gap-2" novalidate @submit.prevent="extra">
        <div class="grid grid-cols-2 gap-2">
          <TextField v-model="extraName" label="Name" /><TextField
            v-model="extraLength"
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
