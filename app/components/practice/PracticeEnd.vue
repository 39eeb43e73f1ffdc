<!-- A practice run as it ended: won or lost and why, the truth, what was misheard, others on the same bike, and its
     luck. -->
<script setup lang="ts">
import type { Beside } from '#core/practice/beside'
import type { RearAct } from '#core/practice/rearStand'
import type { Heard } from '#core/response/heard'
import type { PracticeRun } from '#core/practice/asked'
import { plain } from '~/workers/latest'
import { practiceWorker } from '~/workers/usePractice'
import { HEARD_KEYS } from '../bench/heard'
import { countOf } from '#core/quantity/words'

export type Ended = {
  won: boolean
  because: readonly string[]
  truth: readonly { what: string; figure: string }[]
  touches: number
  said: readonly { said: Heard; was: Heard }[]
}
const props = defineProps<{ run: PracticeRun; end: Ended; drawn?: boolean }>()
const emit = defineEmits<{ again: []; another: []; replay: [at: number] }>()
const beside = shallowRef<Beside[] | null>(null)
const rear = computed(() => props.run.asked.bench === 'rear')
const acts = () => plain(props.run.acts) as RearAct[]
const asked = () => plain(props.run.asked)
onMounted(async () => {
  const worker = practiceWorker()
  beside.value = rear.value ? await worker.beside(asked()) : await worker.besideStand(asked())
})

const misheard = computed(() => props.end.said.filter(s => s.said !== s.was))
const sayHeard = (h: Heard) => {
  const k = HEARD_KEYS.find(x => x.heard === h)!
  return `${k.word.toLowerCase()} ${k.more}`
}

/** Luck: how often the advice would still have won from here, at some places of the run. */
const PLACES = 5
const luck = ref<{ after: number; chance: number }[]>([])
const reckoning = ref(false)
async function reckon(): Promise<void> {
  reckoning.value = true
  luck.value = []
  const n = props.run.acts.length
  for (const after of [...new Set(Array.from({ length: PLACES }, (_, i) => Math.round((i * (n - 1)) / (PLACES - 1))))])
    luck.value = [...luck.value, { after, chance: await practiceWorker().chance(asked(), acts(), after) }]
  reckoning.value = false
}
const lostAt = computed(() => {
  const drop = luck.value.findIndex((l, i) => i > 0 && l.chance < luck.value[i - 1]!.chance - 0.4)
  return drop > 0 ? luck.value[drop]! : null
})
const at = ref(props.run.acts.length)
watch(at, a => emit('replay', a))
</script>

<template>
  <section class="grid gap-x-8 gap-y-5 lg:grid-cols-2" data-test="end">
    <div>
      <h2 class="text-2xl font-bold" :class="end.won ? 'text-clean' : 'text-stop'" data-test="verdict">
        {{ end.won ? 'Right: it may go' : 'Not won' }}
      </h2>
      <p class="small">{{ countOf(end.touches, 'touch', 'touches') }}, {{ countOf(run.helps.length, 'help') }}</p>
      <ul class="mt-2 grid gap-1">
        <li v-for="b in end.because" :key="b" class="border-l-[6px] border-ink pl-3">{{ b }}</li>
      </ul>
      <div class="mt-4 flex flex-wrap gap-2">
        <button v-if="drawn" type="button" class="act min-h-12!" data-test="another" @click="emit('another')">
          Another it may be
        </button>
        <NuxtLink v-else to="/practice" class="act inline-flex min-h-12! items-center" data-test="another"
          >Another bike</NuxtLink
        >
        <button type="button" class="also min-h-12!" data-test="once-more" @click="emit('again')">
          This bike once more
        </button>
      </div>
      <template v-if="rear && run.acts.length">
        <h3 class="mt-5 font-bold">The run, once more</h3>
        <label class="mt-1 block"
          >After {{ at }} of {{ run.acts.length }} steps
          <input
            v-model.number="at"
            type="range"
            min="0"
            :max="run.acts.length"
            class="block w-full"
            data-test="replay"
        /></label>
        <button
          v-if="!luck.length"
          type="button"
          class="quiet mt-1 min-h-11 underline"
          data-test="luck"
          @click="reckon"
        >
          How much of it was luck?
        </button>
        <ol v-else class="mt-1 border-t-2 border-ink" data-test="luck-list">
          <li v-for="l in luck" :key="l.after" class="flex justify-between border-b border-rule py-1">
            <span>from step {{ l.after }}</span
            ><span class="figure">won {{ Math.round(100 * l.chance) }} of 100 times</span>
          </li>
        </ol>
        <p v-if="reckoning" class="small" role="status">Reckoning {{ luck.length + 1 }} of {{ PLACES }} …</p>
        <p v-else-if="lostAt" class="small">It was lost about step {{ lostAt.after }}.</p>
        <p v-else-if="luck.length" class="small">From four runs a step: told roughly.</p>
      </template>
    </div>
    <div>
      <h3 class="font-bold">What it truly was</h3>
      <dl class="mt-1 border-t-2 border-ink" data-test="truth">
        <div v-for="t in end.truth" :key="t.what" class="flex justify-between gap-4 border-b border-rule py-1.5">
          <dt>{{ t.what }}</dt>
          <dd class="figure text-right">{{ t.figure }}</dd>
        </div>
      </dl>
      <template v-if="end.said.length">
        <h3 class="mt-5 font-bold">Heard {{ end.said.length - misheard.length }} of {{ end.said.length }} right</h3>
        <ul v-if="misheard.length" class="mt-1 border-t-2 border-ink" data-test="misheard">
          <li v-for="(m, i) in misheard" :key="i" class="border-b border-rule py-1.5">
            said <b>{{ sayHeard(m.said) }}</b>, it was <b>{{ sayHeard(m.was) }}</b>
          </li>
        </ul>
      </template>
      <h3 class="mt-5 font-bold">Others on the same bike</h3>
      <p v-if="!beside" class="small" role="status">They are at it …</p>
      <table v-else class="mt-1 w-full border-t-2 border-ink" data-test="beside">
        <thead>
          <tr class="small text-left">
            <th class="font-normal">by</th>
            <th class="font-normal">won</th>
            <th class="text-right font-normal">touches</th>
            <th class="text-right font-normal">needless parts</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="b in beside" :key="b.id" class="border-t border-rule">
            <td class="py-1.5">{{ b.id === 'Ocho' ? 'the advice' : b.id }}</td>
            <td>{{ b.won ? 'yes' : 'no' }}</td>
            <td class="figure text-right">{{ b.touches }}</td>
            <td class="figure text-right">{{ b.needless }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>
