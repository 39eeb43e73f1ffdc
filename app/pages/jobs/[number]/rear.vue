<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { Undo2 } from '@lucide/vue'
import { geometryOf } from '#core/response/setup'
import { howToAsk } from '#core/procedure/asking'
import type { Heard } from '#core/response/heard'
import { restPlaceOf } from '#core/advice/picture'
import type { Move } from '#core/advice/contract'
import { CAUSES } from '#core/advice/contract'
import { priorFor } from '#core/ledger/belief'
import type { Advised, LedgerEvent } from '#core/ledger/events'
import { moveKey } from '#core/ledger/fromBench'
import { lastTaken, type ScrewName } from '#core/ledger/reduce'
import { sayTurns } from '#core/quantity/turns'
import type { HangerFit } from '#core/rear/hanger'
import { HEARD_KEYS } from '~/components/bench/heard'
import { useAdvice, type Question } from '~/workers/useAdvice'

const route = useRoute()
const number = Number(route.params.number)
const ledger = useLedger()
const { state, record, loaded } = storeToRefs(ledger)
useHead({ title: () => `Tag ${record.value?.tag ?? ''} · Rear bench · Ocho` })
useLive(number)
void ledger.open(number)

const schools = useSchools(state)
const setup = computed(() => state.value.setup)
const geometry = computed(() => setup.value && geometryOf(setup.value))
/** A lever without clicks: only stops, gap and slack are set, and there is no index to advise on. */
const friction = computed(() => state.value.parts?.shifter.friction === true)
const question = computed<Question | null>(() =>
  setup.value && record.value && !friction.value
    ? { job: number, setup: setup.value, log: state.value.bench, prior: priorFor(state.value, record.value.known) }
    : null,
)
const { answer, again } = useAdvice(question)
const picture = computed(() => answer.value.picture)
const stale = computed(() => answer.value.is === 'thinking')

// --- the dead time: a second contact must not accept a move nobody has seen
const DEAD_MS = 400
const dead = ref(false)
let deadUntilDrawn = false
let timer: ReturnType<typeof setTimeout> | undefined
function startDead() {
  dead.value = true
  deadUntilDrawn = true
  clearTimeout(timer)
}
watch(answer, async now => {
  if (!deadUntilDrawn || now.is === 'thinking') return
  deadUntilDrawn = false
  await nextTick()
  timer = setTimeout(() => {
    dead.value = false
  }, DEAD_MS)
})

// --- the gear shifted into next
const aim = ref<number | null>(null)
const lever = computed(() => state.value.trace?.lever ?? 0)
const barredFrom = computed(() => (state.value.trace?.seenL || !geometry.value ? null : geometry.value.n - 1))
const last = computed(() => (geometry.value?.n ?? 1) - 1)
const reachable = computed(() => (barredFrom.value === null ? last.value : last.value - 1))
/** Where the next shift goes: as chosen, as advised, or on the way already taken. */
const target = computed(() => {
  if (aim.value !== null) return Math.min(aim.value, reachable.value)
  const move = picture.value?.move
  if (move?.do === 'shift') return move.to
  const inward = state.value.trace?.lastInward ?? true
  const next = lever.value + (lever.value === 0 ? 1 : lever.value >= reachable.value ? -1 : inward ? 1 : -1)
  return Math.max(0, Math.min(reachable.value, next))
})
const inward = computed(() =>
  target.value === lever.value
    ? target.value === last.value || (target.value !== 0 && (state.value.trace?.lastInward ?? true))
    : target.value > lever.value,
)
const exceptions = ref(new Set<number>())
function toggle(sprocket: number) {
  const next = new Set(exceptions.value)
  if (!next.delete(sprocket)) next.add(sprocket)
  exceptions.value = next
}
const aimBy = (by: number) => {
  aim.value = Math.max(0, Math.min(reachable.value, target.value + by))
}

// --- recording
const panel = ref<'move' | 'else' | 'keys'>('move')
const screw = ref<ScrewName>('barrel')
const pending = ref(0) // eighths wound with the bracket keys, not yet logged
const edgeChosen = ref(-1)
const said = ref('')
const hint = ref('')

const advised = (taken: boolean): { advised?: Advised } => {
  const p = picture.value
  if (!p || stale.value) return {}
  const cause = p.move.do === 'replace' ? p.move.cause : [...CAUSES].sort((a, b) => p.causes[b] - p.causes[a])[0]
  return { advised: { move: moveKey(p.move), right: p.right, after: p.after, cause, taken } }
}
async function put(event: LedgerEvent, words: string) {
  // what was waiting for L stays shut to a trainee until a mechanic signs
  if (event.kind === 'sight' && event.at === 'L' && session.now?.person?.role === 'trainee') {
    signing.value = event
    return
  }
  said.value = words
  hint.value = ''
  aim.value = null
  pending.value = 0
  edgeChosen.value = -1
  requestAnimationFrame(() => setTimeout(tick)) // what is seen comes before what is heard
  await ledger.append(event)
}
const session = useSession()
const signing = shallowRef<LedgerEvent | null>(null)
async function signed(sign: { person: string; pin: string }) {
  const event = signing.value
  signing.value = null
  if (event) await ledger.append(event, sign)
}

function heard(what: Heard) {
  if (what === 'off' && target.value !== 0 && target.value !== last.value) return
  const moved = picture.value?.move
  void put(
    {
      kind: 'shift',
      from: lever.value,
      to: target.value,
      heard: what,
      ...advised(moved?.do === 'shift' && moved.to === target.value),
    },
    `Noted ${what}`,
  )
}
function pass() {
  if (barredFrom.value !== null)
    return void (hint.value = 'See L by hand before a whole pass: it runs to the largest sprocket')
  const list = [...exceptions.value].map(sprocket => ({ sprocket, way: null, heard: null }))
  exceptions.value = new Set()
  void put(
    { kind: 'pass', exceptions: list, ...advised(false) },
    list.length ? `Noted a pass with ${list.length} not clean` : 'Noted a clean pass',
  )
}
/** Done as advised. Dead while the move is still the old one, or has only just appeared. */
function accept() {
  const p = picture.value
  if (panel.value === 'else') return
  if (pending.value !== 0) return logPending()
  if (!p || stale.value || dead.value) return
  const move: Move = p.move
  switch (move.do) {
    case 'turn':
      startDead()
      return void put(
        { kind: 'turn', screw: move.screw, sixteenths: Math.round(move.turns * 16), ...advised(true) },
        `Logged ${sayTurns(move.turns)}`,
      )
    case 'sight':
      startDead()
      return void put({ kind: 'sight', at: move.at, offsetMm: 0, ...advised(true) }, `${move.at} seen in line`)
    case 'edge':
      if (edgeChosen.value >= 0) edge(edgeChosen.value, true)
      return
    case 'reclamp':
      startDead()
      return void put(
        { kind: 'reclamp', barrelSixteenthsOut: Math.round(move.barrelTurnsOut * 16), ...advised(true) },
        'Clamped again',
      )
    case 'replace':
      startDead()
      return void put({ kind: 'replace', part: move.part, ...advised(true) }, `New ${move.part}`)
    case 'done':
      return void navigateTo(`/jobs/${number}/sheet`)
  }
}
function sight(mm: number) {
  const move = picture.value?.move
  if (move?.do === 'sight') {
    startDead()
    void put({ kind: 'sight', at: move.at, offsetMm: mm, ...advised(true) }, `${move.at} seen`)
  }
}
function edge(turns: number, found: boolean) {
  const move = picture.value?.move
  if (move?.do !== 'edge') return
  startDead()
  void put(
    {
      kind: 'edge',
      click: move.click,
      way: move.way,
      sixteenths: Math.round(turns * 16) * (move.way === 'out' ? 1 : -1),
      found,
      ...advised(true),
    },
    'Noted the edge',
  )
}
function offset(mm: number) {
  const move = picture.value?.move
  if (move?.do === 'offset')
    void put({ kind: 'offset', click: move.click, offsetMm: mm, ...advised(true) }, 'Noted the offset')
}
const gauge = (fit: HangerFit) =>
  void put(
    { kind: 'gauge', camberDeg: fit.camberDeg, toeDeg: fit.toeDeg, acrossMm: fit.acrossMm, ...advised(true) },
    'Noted the hanger',
  )
function bracket(by: 1 | -1) {
  const move = picture.value?.move
  if (panel.value === 'move' && move?.do === 'edge' && pending.value === 0) {
    edgeChosen.value = Math.max(0, Math.min(2, (edgeChosen.value < 0 ? 0 : edgeChosen.value) + by / 8))
    return
  }
  const room =
    state.value.setup && screw.value === 'barrel'
      ? {
          out: state.value.setup.barrelTurnsRange - state.value.barrelSixteenths / 16,
          in: state.value.barrelSixteenths / 16,
        }
      : { out: 12, in: 12 }
  const eighths = Math.round(schools.value.step.turns * 8)
  pending.value = Math.max(
    -Math.floor(room.in * 8 + 1e-6),
    Math.min(Math.floor(room.out * 8 + 1e-6), pending.value + by * eighths),
  )
}
function logPending() {
  const sixteenths = pending.value * 2 * (screw.value === 'barrel' ? 1 : -1)
  const words = `Logged ${sayTurns(pending.value / 8)}`
  if (sixteenths) void put({ kind: 'turn', screw: screw.value, sixteenths, ...advised(false) }, words)
}
const outlier = useOutlier(state, record)
/** A figure far from all others of such bikes waits for a word before it is kept. */
const doubtful = shallowRef<{ event: LedgerEvent; question: string } | null>(null)
async function other(event: LedgerEvent, sure = false) {
  const question = sure ? null : outlier(event)
  doubtful.value = question ? { event, question } : null
  if (question) return
  panel.value = 'move'
  await put(
    'advised' in event || event.kind === 'proof' ? event : ({ ...event, ...advised(false) } as LedgerEvent),
    'Noted',
  )
}
function undo() {
  said.value = ledger.canUndo ? 'Taken back' : 'Nothing to take back'
  startDead()
  void ledger.undo()
}

const taken = computed(() => lastTaken(state.value))

const noting = ref(false)
const noteTrouble = ref('')
async function note(text: string) {
  noting.value = true
  const asked = await ask(`/api/jobs/${number}/notes`, { method: 'POST', body: { text } })
  noteTrouble.value =
    asked.is === 'offline'
      ? `${OFFLINE_WORDS}; the line is kept in the field`
      : asked.is === 'refused'
        ? asked.message
        : ''
  noting.value = false
  if (asked.is !== 'done') return
  said.value = 'Written'
  panel.value = 'move'
  await ledger.refresh()
}

const KEY_WORDS = [
  ['1–8', 'what was heard'],
  ['0', 'a whole pass, clean but for the gears marked'],
  ['←  →', 'aim a gear towards the spokes, the frame'],
  ['X', 'mark the aimed gear as not clean in the pass'],
  ['[  ]', 'wind the chosen screw an eighth in, out; Enter logs it'],
  ['B H L', 'choose barrel, H or L for the brackets'],
  ['R', 'where winding began to rub'],
  ['N', 'no rub found'],
  ['Enter', 'done as advised'],
  ['E', 'I did something else'],
  ['Z', 'take back'],
  ['?', 'this list'],
]
useBenchKeys(() => ({
  ...Object.fromEntries(HEARD_KEYS.map(k => [k.key, () => heard(k.heard)])),
  '0': pass,
  ArrowLeft: () => aimBy(1),
  ArrowRight: () => aimBy(-1),
  x: () => toggle(target.value),
  '[': () => bracket(-1),
  ']': () => bracket(1),
  b: () => {
    screw.value = 'barrel'
  },
  h: () => {
    screw.value = 'H'
  },
  l: () => {
    screw.value = 'L'
  },
  r: () => {
    if (edgeChosen.value >= 0) edge(edgeChosen.value, true)
  },
  n: () => {
    const move = picture.value?.move
    if (move?.do === 'edge' && setup.value)
      edge(
        Math.min(
          2,
          Math.floor(
            8 *
              (move.way === 'out'
                ? setup.value.barrelTurnsRange - state.value.barrelSixteenths / 16
                : state.value.barrelSixteenths / 16) +
              1e-6,
          ) / 8,
        ),
        false,
      )
  },
  Enter: accept,
  e: () => {
    panel.value = panel.value === 'else' ? 'move' : 'else'
  },
  z: undo,
  '?': () => {
    panel.value = panel.value === 'keys' ? 'move' : 'keys'
  },
  Escape: () => {
    panel.value = 'move'
    pending.value = 0
    aim.value = null
    exceptions.value = new Set()
  },
}))

useAwake()

// --- sizes: the instruments fill what there is, to true scale across
const mats = useTemplateRef<HTMLElement>('mats')
const { width, height } = useElementSize(mats)
const narrow = computed(() => width.value > 0 && width.value < 600)
const inset = computed(() => (narrow.value ? 44 : 76))
const sizes = computed(() => {
  const w = Math.max(280, Math.floor(width.value))
  const h = narrow.value ? 480 : Math.max(360, Math.floor(height.value))
  const rule = Math.max(118, Math.round(h * 0.28))
  const numbers = 44
  const gap = 10
  const rest = h - rule - numbers - gap
  return { w, lanes: Math.round(rest * 0.42), strip: rest - Math.round(rest * 0.42), numbers, rule }
})
const cells = computed(() => {
  if (!geometry.value) return []
  const { placeMm, n } = geometry.value
  const from = inset.value
  const to = sizes.value.w - inset.value
  const step = (to - from) / (n - 1)
  return placeMm.map((p, k) => ({ k, x: to - (p / placeMm[n - 1]) * (to - from) - step / 2, w: step }))
})
const pulley = computed(() =>
  picture.value && geometry.value && state.value.trace
    ? restPlaceOf(picture.value, geometry.value, state.value.trace.chain, state.value.trace.lastInward)
    : null,
)
/** A window is only drawn once some setting is likely enough to be in it. */
const windowState = computed(() => {
  const p = picture.value
  if (!p) return 'unknown'
  if (p.windowExists < 0.5 || p.causes.wear > 0.5) return 'none'
  return p.windowTurns && Math.max(...p.eighths.map(e => e.right)) >= 0.25 ? 'known' : 'unknown'
})
</script>

<template>
  <div class="bench">
    <BenchTop />

    <div v-if="loaded !== 'ready'" class="p-6">
      <p v-if="loaded === 'loading'">Reading the log</p>
      <template v-else>
        <p class="stopped" role="alert">
          {{
            loaded === 'missing'
              ? `There is no job ${number} here.`
              : `${OFFLINE_WORDS}. This job has not been opened on this device before.`
          }}
        </p>
        <NuxtLink to="/" class="act mt-4 max-w-sm">To the Floor</NuxtLink>
      </template>
    </div>

    <NoDerailleur v-else-if="!setup" :number="number" />

    <template v-else-if="geometry">
      <aside class="left" aria-label="Stages and turns">
        <StagePath :state="state" :number="number" :right="picture?.right ?? null" here="index" />
        <div class="mt-auto pt-2">
          <NetTurns :state="state" />
          <button
            v-if="taken"
            type="button"
            class="quiet w-full justify-start border-t border-rule px-0! text-stop"
            data-test="wrong"
            @click="ledger.append({ kind: 'wrong', about: taken.id })"
          >
            That was wrong
          </button>
          <button
            type="button"
            class="quiet w-full justify-between border-t border-rule px-0!"
            :disabled="!ledger.canUndo"
            data-test="undo"
            @click="undo"
          >
            <span class="flex items-center gap-2"><Undo2 :size="18" aria-hidden="true" />Take back</span>
            <kbd class="key">Z</kbd>
          </button>
        </div>
      </aside>

      <main class="middle">
        <BenchTroubles />
        <DoubtfulFigure
          v-if="doubtful"
          :question="doubtful.question"
          @keep="other(doubtful.event, true)"
          @leave="doubtful = null"
        />
        <div ref="mats" class="mats">
          <div class="mat relative" data-test="lanes">
            <SprocketLanes
              :width="sizes.w"
              :height="sizes.lanes"
              :teeth="setup.teeth"
              :place-mm="geometry.placeMm"
              :pulley-mm="pulley"
              :selected="target"
              :barred-from="barredFrom"
              :inset="inset"
            />
            <MisfitStrip
              :width="sizes.w"
              :height="sizes.strip"
              :place-mm="geometry.placeMm"
              :gears="picture?.gears ?? []"
              :stops="picture?.stops ?? null"
              :inset="inset"
            />
            <div class="relative" :style="{ height: `${sizes.numbers}px` }">
              <button
                v-for="c in cells"
                :key="c.k"
                type="button"
                class="figure exception"
                :style="{ left: `${c.x}px`, width: `${c.w}px` }"
                :class="{ aimed: c.k === target, marked: exceptions.has(c.k) }"
                :aria-pressed="exceptions.has(c.k)"
                :aria-label="`Gear ${setup.teeth.length - c.k}, the ${setup.teeth[c.k]}: not clean in the pass`"
                :data-test="`mark-${c.k}`"
                @click="toggle(c.k)"
              >
                <span>{{ exceptions.has(c.k) ? '×' : setup.teeth.length - c.k }}</span>
              </button>
            </div>
            <button
              v-for="c in cells"
              :key="`lane${c.k}`"
              type="button"
              class="lane"
              :style="{ left: `${c.x}px`, width: `${c.w}px`, height: `${sizes.lanes + sizes.strip}px` }"
              :disabled="barredFrom !== null && c.k >= barredFrom"
              :aria-label="`Shift to the ${setup.teeth[c.k]}${barredFrom !== null && c.k >= barredFrom ? ': see L by hand first' : ''}`"
              :aria-pressed="c.k === target"
              :data-test="`lane-${c.k}`"
              @click="aim = c.k"
            />
          </div>
          <div class="mat mt-2.5" data-test="rule">
            <BarrelRule
              :width="sizes.w"
              :height="sizes.rule"
              :turns-out="state.barrelSixteenths / 16"
              :range-turns="setup.barrelTurnsRange"
              :clean-turns="windowState === 'known' ? (picture?.windowTurns ?? null) : null"
              :window-state="windowState"
              :eighths="picture?.eighths ?? []"
              :turn="
                picture?.move.do === 'turn' && picture.move.screw === 'barrel' && !stale ? picture.move.turns : null
              "
            />
          </div>
        </div>
      </main>

      <aside class="right" aria-label="Advice">
        <div class="inner">
          <SomethingElse
            v-if="panel === 'else'"
            v-model:screw="screw"
            :state="state"
            :teeth="setup.teeth"
            :noting="noting"
            :note-trouble="noteTrouble"
            @record="other"
            @note="note"
            @close="panel = 'move'"
          />
          <section v-else-if="panel === 'keys'" aria-label="Keys">
            <div class="flex items-center justify-between">
              <h2 class="text-lg font-bold">Keys</h2>
              <button type="button" class="quiet" @click="panel = 'move'">Close</button>
            </div>
            <dl class="mt-2 grid grid-cols-[5rem_1fr] gap-y-1.5">
              <template v-for="[k, w] in KEY_WORDS" :key="k"
                ><dt class="figure font-semibold">{{ k }}</dt>
                <dd>{{ w }}</dd></template
              >
            </dl>
          </section>
          <template v-else>
            <div v-if="pending" class="mb-3 rounded-md border-2 border-ink p-3" data-test="pending">
              <p class="font-bold" :class="pending > 0 ? 'text-out' : 'text-in'">
                {{ screw === 'barrel' ? 'Barrel' : screw }} {{ pending > 0 ? 'out' : 'in' }} {{ sayTurns(pending / 8) }}
              </p>
              <div class="mt-2 flex gap-2">
                <button type="button" class="act flex-1" @click="logPending">Log it <kbd class="key">Enter</kbd></button
                ><button type="button" class="also" @click="pending = 0">Drop</button>
              </div>
            </div>
            <FrictionLever v-if="friction" :state="state" :number="number" />
            <NextMove
              v-else-if="picture"
              :picture="picture"
              :teeth="setup.teeth"
              :how="picture.move.do === 'shift' ? howToAsk(schools, setup.teeth, lever, picture.move.to) : null"
              :dead="dead"
              :stale="stale"
              :barrel-turns="state.barrelSixteenths / 16"
              :barrel-range="setup.barrelTurnsRange"
              :edge-chosen="edgeChosen"
              @accept="accept"
              @sight="sight"
              @edge="edge"
              @offset="offset"
              @gauge="gauge"
            />
            <CauseBars v-if="picture" class="mt-1" :picture="picture" />
            <p v-else-if="answer.is === 'failed'" class="stopped" role="alert">
              No advice now: {{ answer.message }}. What you tap is still recorded.
              <button type="button" class="quiet underline" @click="again">Ask again</button>
            </p>
            <p v-else-if="!friction" data-test="thinking">Working out the first move</p>
          </template>
        </div>
        <div v-if="panel === 'move'" class="grid grid-cols-2 gap-2 border-t border-rule pt-2">
          <button type="button" class="also min-h-11! px-3! text-[0.9375rem]" data-test="else" @click="panel = 'else'">
            Something else <kbd class="key">E</kbd>
          </button>
          <NuxtLink :to="`/jobs/${number}/sheet`" class="also min-h-11! px-3! text-[0.9375rem]" data-test="to-sheet"
            >Brakes, sheet</NuxtLink
          >
        </div>
      </aside>

      <footer class="bottom">
        <div class="shiftline">
          <p class="small leading-tight">Shift towards the {{ inward ? 'spokes' : 'frame' }}</p>
          <p class="figure flex items-center gap-2 text-2xl font-semibold" data-test="shift">
            <span :class="inward ? '' : 'text-soft'">{{ setup.teeth[inward ? target : lever] }}</span>
            <svg
              width="26"
              height="14"
              :class="inward ? '' : 'rotate-180'"
              role="img"
              :aria-label="inward ? 'from the right' : 'to the right'"
            >
              <path d="M25 7H4M9 1.5L3 7l6 5.5" fill="none" stroke="currentColor" stroke-width="2.5" />
            </svg>
            <span :class="inward ? 'text-soft' : ''">{{ setup.teeth[inward ? lever : target] }}</span>
          </p>
          <p class="sr-only" aria-live="polite">{{ said }}</p>
          <p v-if="hint" class="text-sm font-semibold text-stop" role="alert">{{ hint }}</p>
        </div>
        <HeardKeys
          v-if="!friction"
          :pass-barred="barredFrom !== null"
          :exceptions="exceptions.size"
          :at-end="target === 0 || target === last"
          @heard="heard"
          @pass="pass"
        />
      </footer>
    </template>
    <p v-else class="stopped m-6">This job has no rear drivetrain by its numbers.</p>

    <SignGate
      v-if="signing"
      what="A trainee saw L: a mechanic looks too and signs"
      @sign="signed"
      @close="signing = null"
    />
  </div>
</template>

<style scoped>
.bench {
  display: grid;
  grid-template: 'top top top' 52px 'left middle right' minmax(0, 1fr) 'bottom bottom bottom' auto / 196px minmax(
      0,
      1fr
    ) 372px;
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
.mats {
  flex: 1;
  min-height: 0;
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
.bottom {
  grid-area: bottom;
  display: grid;
  grid-template-columns: 180px minmax(0, 1fr);
  align-items: center;
  gap: 16px;
  padding: 10px 16px;
  border-top: 1px solid var(--rule);
  background: var(--ground);
}
.lane {
  position: absolute;
  top: 0;
  background: transparent;
  border-radius: 4px;
}
.lane[aria-pressed='true'] {
  background: rgb(255 255 255 / 0.07);
}
.exception {
  position: absolute;
  top: 0;
  height: 44px;
  display: grid;
  place-items: center;
  color: #c4d6d1;
  font-size: 1rem;
}
.exception span {
  min-width: 32px;
  padding: 3px 0;
  text-align: center;
  border: 2px solid transparent;
  border-radius: 5px;
}
.exception.aimed span {
  border-color: #fff;
  color: #fff;
  font-weight: 600;
}
.exception.marked span {
  background: #ff8270;
  color: #12181a;
  font-weight: 600;
  border-color: #ff8270;
}
@media (max-height: 700px) {
  .bench {
    grid-template-rows: 46px minmax(0, 1fr) auto;
  }
  .middle {
    padding: 8px 16px;
  }
  .bottom {
    padding: 6px 16px;
  }
}
@media (max-width: 1000px) {
  .bench {
    grid-template: 'top' auto 'right' auto 'middle' auto 'left' auto 'bottom' auto / minmax(0, 1fr);
    height: auto;
    min-height: 100dvh;
    padding-bottom: 190px;
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
  .bottom {
    position: fixed;
    inset: auto 0 0 0;
    grid-template-columns: minmax(0, 1fr);
    gap: 4px;
    padding: 6px 8px;
    z-index: 20;
  }
  .shiftline {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 10px;
  }
}
</style>
