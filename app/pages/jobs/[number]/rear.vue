<script setup lang="ts">
import { howToAsk } from '#core/procedure/asking'
import { lastTaken } from '#core/ledger/reduce'
import { ringCountOf } from '#core/ledger/ringCount'
import { headOfRear } from '#core/rear/heads'
import { sayRing } from '#core/rear/rings'
import { Made } from '#core/http/answers'
import { stageAfter } from '#core/procedure/schools'
import { HEARD_KEYS } from '~/components/bench/heard'
import type { BenchKeys } from '~/composables/benchKeys'

const bench = useBench(
  () => 'Rear bench',
  ['rear'],
  () => keys(),
)
const { number, state } = bench
const rear = useRearBench(bench)
const { setup, geometry, friction, picture, stale, failed, schools, lever, screw, pending } = rear
const opinions = computed(() => (picture.value ? { rear: { right: picture.value.right } } : {}))
const panel = ref<'move' | 'else'>('move')
const taken = computed(() => lastTaken(state.value))
/** Parts that no setting makes clean stop the bench until they are changed, or worked on by name. */
const barred = computed(() => headOfRear(state.value.rear, bench.standards.value)?.id === 'parts')

const noting = ref(false)
const noteTrouble = ref('')
async function note(text: string) {
  noting.value = true
  const asked = await ask(Made, `/api/jobs/${number}/notes`, { method: 'POST', body: { text }, once: true })
  noteTrouble.value = asked.is === 'offline' ? `${OFFLINE_WORDS}; the line is kept in the field` : sayTrouble(asked)
  noting.value = false
  if (asked.is !== 'done') return
  bench.said.value = 'Written'
  panel.value = 'move'
  await bench.ledger.refresh()
}
async function other(event: Parameters<typeof rear.other>[0]) {
  panel.value = 'move'
  await rear.other(event)
}

/** By a finger the button gives the focus up again: Enter is for the move that comes next. */
function leave(event: MouseEvent) {
  if (event.detail > 0) (event.currentTarget as HTMLElement).blur()
  rear.leave()
}
const keys = (): BenchKeys => ({
  ...answerKeys(HEARD_KEYS.map(k => () => rear.heard(k.heard))),
  0: rear.pass,
  ArrowLeft: () => rear.aimBy(1),
  ArrowRight: () => rear.aimBy(-1),
  x: () => rear.toggle(rear.aim.value.to),
  '[': () => rear.bracket(-1),
  ']': () => rear.bracket(1),
  b: () => rear.takeScrew('barrel'),
  h: () => rear.takeScrew('H'),
  l: () => rear.takeScrew('L'),
  r: rear.edgeFound,
  n: rear.noEdge,
  Enter: () => {
    if (panel.value !== 'else') rear.accept(true)
  },
  Backspace: rear.leave,
  e: () => void (panel.value = panel.value === 'else' ? 'move' : 'else'),
  PageDown: () => void navigateTo(stageLink(number, stageAfter('index', schools.value))),
  Escape: () => {
    panel.value = 'move'
    rear.clear()
  },
})
// what was taken back was seen: the move that comes back must be seen too
watch(() => state.value.undone.size, rear.startDead)
</script>

<template>
  <div class="bench">
    <JobTop here="rear" :opinions="opinions" :bench="bench" />
    <!-- in place: what says more is fetched only where there is more to say -->
    <p v-if="bench.loaded.value === 'loading'" class="p-6">Reading the log</p>
    <LazyJobNotHere v-else-if="bench.loaded.value !== 'ready'" :bench="bench" />
    <LazyNoDerailleur
      v-else-if="!setup || !geometry"
      :number="number"
      :state="state"
      @take="bench.put({ kind: 'parts', parts: $event }, 'Drivetrain named')"
    />
    <template v-else>
      <aside class="left" aria-label="Stages and turns">
        <StagePath :state="state" :number="number" :right="picture?.right ?? null" here="index" />
        <div class="mt-auto pt-2">
          <NetTurns :state="state" />
          <button
            v-if="taken"
            type="button"
            class="quiet w-full justify-start border-t border-rule px-0! text-stop"
            data-test="wrong"
            @click="bench.put({ kind: 'wrong', about: taken.id })"
          >
            That was wrong
          </button>
          <TakeBack :bench="bench" />
        </div>
      </aside>

      <main class="middle">
        <BenchTroubles :bench="bench" />
        <RearMats :state="state.rear" :rear="rear" />
      </main>

      <aside class="right" aria-label="Advice">
        <div class="inner">
          <LazySomethingElse
            v-if="panel === 'else'"
            v-model:screw="screw"
            :number="number"
            :state="state"
            :teeth="setup.teeth"
            :noting="noting"
            :note-trouble="noteTrouble"
            @record="other"
            @note="note"
            @close="panel = 'move'"
          />
          <template v-else>
            <LazyPendingTurn v-if="pending" :rear="rear" />
            <p v-if="barred" class="stopped" role="status" data-test="barred">
              No advice on parts that cannot index. Change one, or work on as it is.
            </p>
            <LazyFrictionLever v-else-if="friction" :state="state" :number="number" />
            <NextMove
              v-else-if="picture"
              :rear="rear"
              :state="state.rear"
              :how="picture.move.do === 'shift' ? howToAsk(schools, setup.teeth, lever, picture.move.to) : null"
              :ring="sayRing(picture.move.do === 'sight' ? picture.move.at : 'index', ringCountOf(state))"
            />
            <CauseBars v-if="picture && !barred" class="mt-1" :picture="picture" />
            <p v-else-if="failed" class="stopped" role="alert">
              No advice now: {{ failed }}. What you tap is still recorded.
              <button type="button" class="quiet underline" @click="rear.again">Ask again</button>
            </p>
            <p v-else-if="!friction" data-test="thinking" :aria-busy="stale">Working out the first move</p>
          </template>
        </div>
        <div v-if="panel === 'move'" class="grid grid-cols-[auto_1fr] gap-2 border-t border-rule pt-2">
          <button
            type="button"
            class="also min-h-11! px-3! text-[0.9375rem]"
            :disabled="!picture || picture.move.do === 'done'"
            data-test="leave"
            @click="leave"
          >
            Leave it <kbd class="key">⌫</kbd>
          </button>
          <button type="button" class="also min-h-11! px-3! text-[0.9375rem]" data-test="else" @click="panel = 'else'">
            Something else <kbd class="key">E</kbd>
          </button>
        </div>
      </aside>

      <ShiftLine :rear="rear" />
    </template>
    <BenchSaid :bench="bench" />
  </div>
</template>

<style scoped>
.bench {
  display: grid;
  grid-template:
    'top top top' auto 'left middle right' minmax(0, 1fr) 'bottom bottom bottom' auto / 196px minmax(0, 1fr)
    372px;
  height: 100dvh;
}
.left {
  grid-area: left;
  display: flex;
  flex-direction: column;
  padding: 10px 16px 6px;
  border-right: 1px solid var(--rule);
  overflow-y: auto;
}
.middle {
  grid-area: middle;
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
  padding: 12px 16px;
  overflow-y: auto;
}
.right {
  grid-area: right;
  display: flex;
  flex-direction: column;
  padding: 10px 20px 6px;
  border-left: 1px solid var(--rule);
  background: var(--panel);
  min-height: 0;
}
.inner {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  padding: 3px;
  margin: -3px;
}
@media (max-height: 700px) {
  .middle {
    padding: 8px 16px;
  }
}
@media (max-width: 1000px) {
  .bench {
    grid-template: 'top' auto 'right' auto 'middle' auto 'left' auto 'bottom' auto / minmax(0, 1fr);
    height: auto;
    min-height: 100dvh;
    padding-bottom: 12rem;
  }
  .right {
    border-left: 0;
    border-bottom: 1px solid var(--rule);
    padding: 10px 14px;
  }
  .inner {
    overflow: visible;
  }
  .left {
    border-right: 0;
    border-top: 1px solid var(--rule);
  }
  .middle {
    padding: 10px 8px;
  }
}
</style>
