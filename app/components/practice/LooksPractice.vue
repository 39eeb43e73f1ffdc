<!-- A front, a brake or a hub at the practice stand: what is looked at, what was found, what is put right. -->
<script setup lang="ts">
import { usePreferredReducedMotion } from '@vueuse/core'
import type { PracticeRun } from '#core/practice/asked'
import { DONE, type Found, type Stand } from '#core/practice/stand'
import { plain } from '~/workers/latest'
import { practiceWorker } from '~/workers/usePractice'

const run = defineModel<PracticeRun>({ required: true })
const emit = defineEmits<{ over: [stand: Stand] }>()
const stand = shallowRef<Stand | null>(null)
const busy = ref(false)
const helped = ref('')
const asked = () => plain(run.value.asked)

async function look(): Promise<void> {
  const now = await practiceWorker().stand(asked(), [...run.value.others])
  stand.value = now
  if (now.over) emit('over', now)
}
onMounted(look)
async function act(id: string): Promise<void> {
  if (busy.value || stand.value?.over) return
  busy.value = true
  helped.value = ''
  run.value = { ...run.value, others: [...run.value.others, id] }
  // the run is the page's: here it is new once that has drawn
  await nextTick()
  try {
    await look()
  } finally {
    busy.value = false
  }
}
function help(step: 'tells' | 'move'): void {
  run.value = { ...run.value, helps: [...run.value.helps, step] }
  const a = stand.value?.advised
  helped.value = a ? (step === 'tells' ? a.why : a.words) : ''
}
const titles = computed(() => ({
  look: 'Look',
  turn: stand.value?.turnTitle ?? '',
  renew: 'Put right',
}))
const groups = computed(() =>
  (['look', 'turn', 'renew'] as const)
    .map(group => ({ group, choices: stand.value?.choices.filter(c => c.group === group) ?? [] }))
    .filter(g => g.choices.length),
)
const found = computed(() => [...(stand.value?.found ?? [])].reverse())
/** What the picture shows is said only to who asks for it, or asked for less motion: a still tells too little. */
const inWords = ref(usePreferredReducedMotion().value === 'reduce')
const sayFound = (f: Found) => (f.drawn && !inWords.value ? 'look at the picture' : f.is)
const seenLast = computed(() => (found.value[0]?.drawn && inWords.value ? found.value[0].is : ''))
useBenchKeys(() => answerKeys((groups.value[0]?.choices ?? []).map(c => () => void act(c.id))))
</script>

<template>
  <div v-if="stand" class="grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)]">
    <div class="min-w-0">
      <p class="mb-2 text-xl font-bold" data-test="bike">{{ stand.bike }}</p>
      <p v-if="stand.says" class="-mt-2 mb-2" data-test="says">The customer says: “{{ stand.says }}”</p>
      <PracticeSight :sight="stand.sight" :said="seenLast" class="mb-4" />
      <section v-for="(g, i) in groups" :key="g.group" class="mb-4" :aria-labelledby="`group-${g.group}`">
        <h2 :id="`group-${g.group}`" class="font-bold">{{ titles[g.group] }}</h2>
        <div class="mt-1 grid gap-1.5" :class="g.group === 'turn' ? 'grid-cols-2 sm:grid-cols-4' : 'sm:grid-cols-2'">
          <button
            v-for="(c, n) in g.choices"
            :key="c.id"
            type="button"
            class="also min-h-12! justify-between px-3! text-left leading-tight"
            :disabled="stand.over"
            :data-test="`act-${c.id}`"
            @click="act(c.id)"
          >
            <span>{{ c.words }}</span><kbd v-if="i === 0 && n < 8" class="key">{{ n + 1 }}</kbd>
          </button>
        </div>
      </section>
    </div>
    <div class="min-w-0">
      <p class="mb-3 border-l-[6px] border-ink pl-3" data-test="caution">{{ stand.caution }}</p>
      <div class="flex items-end justify-between">
        <h2 class="font-bold">Found so far</h2>
        <label class="inline-flex min-h-11 items-center gap-2 underline"
          ><input v-model="inWords" type="checkbox" class="size-5" data-test="in-words" />In words</label
        >
      </div>
      <ul
        v-if="found.length"
        class="mt-1 max-h-96 overflow-y-auto border-t-2 border-ink"
        aria-live="polite"
        data-test="found"
      >
        <li v-for="(f, i) in found" :key="`${found.length - i}`" class="border-b border-rule py-1.5">
          {{ f.asked }}<b class="block" :class="{ 'font-normal text-soft': f.drawn && !inWords }">{{ sayFound(f) }}</b>
        </li>
      </ul>
      <p v-else class="mt-1 border-2 border-dashed border-rule p-3 text-soft">Nothing yet: look first.</p>
      <button
        type="button"
        class="act mt-4 min-h-14! w-full"
        :disabled="stand.over"
        data-test="done"
        @click="act(DONE)"
      >
        It is right: prove it
      </button>
      <details class="mt-4">
        <summary class="quiet min-h-11 cursor-pointer py-2 underline" data-test="help">Help, in steps</summary>
        <div class="mt-1 grid grid-cols-2 gap-1.5">
          <button
            type="button"
            class="also min-h-12!"
            :disabled="stand.over"
            data-test="help-tells"
            @click="help('tells')"
          >
            Why look further?
          </button>
          <button
            type="button"
            class="also min-h-12!"
            :disabled="stand.over"
            data-test="help-move"
            @click="help('move')"
          >
            What exactly?
          </button>
        </div>
        <p v-if="helped" class="mt-2 border-l-[6px] border-ink pl-3" aria-live="polite" data-test="helped">
          {{ helped }}
        </p>
        <p class="small mt-1">Each is counted: {{ run.helps.length }} so far.</p>
      </details>
    </div>
  </div>
  <p v-else class="text-soft" role="status">Putting it on the stand …</p>
</template>
