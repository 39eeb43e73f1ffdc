import type { ScrewName } from '#core/chapter/screws'
import { useTimeoutFn } from '@vueuse/core'
import { declineKey } from '#core/advice/moveKey'
import { advisedBy } from '#core/advice/picture'
import type { LedgerEvent } from '#core/ledger/events'
import { sayTurns, toSixteenths } from '#core/quantity/turns'
import { nextShift } from '#core/rear/aim'
import { arrivalsOf } from '#core/rear/arrivals'
import type { Advised, RearOf } from '#core/rear/events'
import { L_FIRST, lastReachable, mayReachLargest } from '#core/rear/gates'
import type { HangerFit } from '#core/rear/hanger'
import { barrelLeft, edgeLimitTurns } from '#core/rear/ofState'
import { setupToIndex } from '#core/rear/toIndex'
import { woundUntil } from '#core/advice/woundUntil'
import type { Heard } from '#core/response/heard'
import { geometryOf } from '#core/response/setup'
import { adviceQuestion } from '~/workers/question'
import { prepareAdvice, useAdvice, type Question } from '~/workers/useAdvice'
import type { Bench } from './bench'

/** A second contact must not accept a move nobody has seen: touches do not count for so long after one is drawn, ms. */
const DEAD_MS = 400
/** The same answer again within so long is a finger that bounced, ms. */
const BOUNCE_MS = 300

/** The rear bench's own doings: its advice, the gear aimed at, the screw at hand, and every touch as an entry. */
export function useRearBench(bench: Bench) {
  const { state, record } = bench
  const rear = computed(() => state.value.rear)
  const setup = computed(() => rear.value.setup)
  const geometry = computed(() => setup.value && geometryOf(setup.value))
  /** A lever without clicks: only stops, gap and slack are set, and there is no index to advise on. */
  const friction = computed(() => setup.value !== null && setupToIndex(rear.value) === null)
  const session = useSession()
  const question = computed<Question | null>(() =>
    record.value ? adviceQuestion(state.value, record.value, session.now) : null,
  )
  onMounted(prepareAdvice)
  const { picture, stale, failed, again } = useAdvice(question)
  const move = computed(() => picture.value?.move ?? null)
  const schools = useSchools()

  // --- the dead time
  const dead = ref(false)
  const startDead = () => {
    dead.value = true
  }
  const { start: comeAlive, stop: stayDead } = useTimeoutFn(() => (dead.value = false), DEAD_MS, { immediate: false })
  watch([dead, stale, failed], async ([isDead, isStale, hasFailed]) => {
    stayDead()
    if (!isDead || (isStale && !hasFailed)) return
    await nextTick()
    comeAlive()
  })

  // --- the gear shifted into next
  const wanted = ref<number | null>(null)
  const n = computed(() => geometry.value?.n ?? 1)
  const last = computed(() => n.value - 1)
  const lever = computed(() => rear.value.trace?.lever ?? 0)
  /** The arrivals of the pass that is advised, in their order; none while no pass is. */
  const arrivals = computed(() =>
    move.value?.do === 'pass' && !stale.value ? arrivalsOf(lever.value, move.value.to, move.value.back) : [],
  )
  /** At which arrival the pass stopped, as it was touched; null while nobody said. */
  const stoppedAt = ref<number | null>(null)
  /** What was heard in the pass, said before where. */
  const heardFirst = ref<Heard | null>(null)
  function stopAt(arrival: number) {
    wanted.value = null
    stoppedAt.value = stoppedAt.value === arrival ? null : arrival
    if (heardFirst.value !== null && stoppedAt.value !== null) void went(heardFirst.value)
  }
  const aim = computed(() => {
    const at = arrivals.value[stoppedAt.value ?? 0]
    if (at && wanted.value === null) return { to: at.to, inward: at.way === 'spokes' }
    return rear.value.trace
      ? nextShift(rear.value.trace, n.value, wanted.value ?? (move.value?.do === 'shift' ? move.value.to : null))
      : { to: 0, inward: true }
  })
  const mayLargest = computed(() => mayReachLargest(rear.value.trace))
  const aimBy = (by: number) => {
    if (arrivals.value.length && wanted.value === null) {
      const way = arrivals.value[0]!.way === 'spokes' ? 1 : -1
      stoppedAt.value = Math.max(
        0,
        Math.min(arrivals.value.length - 1, (stoppedAt.value ?? (by * way > 0 ? -1 : 0)) + by * way),
      )
      return
    }
    wanted.value = Math.max(0, Math.min(lastReachable(rear.value.trace, n.value), aim.value.to + by))
  }
  const aimAt = (sprocket: number) => {
    wanted.value = sprocket
  }
  const exceptions = ref(new Set<number>())
  const toggle = (sprocket: number) => {
    const next = new Set(exceptions.value)
    if (!next.delete(sprocket)) next.add(sprocket)
    exceptions.value = next
  }

  // --- the screw at hand, and how far it was wound with the bracket keys, in eighths, not yet noted
  const screw = ref<ScrewName>('barrel')
  const pending = ref(0)
  const edgeChosen = ref<number | null>(null)
  /** A screw that was asked for is the one the brackets wind, whatever the move looks for. */
  let inHand = false
  function takeScrew(name: ScrewName) {
    screw.value = name
    inHand = true
  }

  const advised = (taken: boolean): { advised?: Advised } =>
    picture.value && !stale.value ? { advised: advisedBy(picture.value, taken) } : {}
  /** What one touch answers; `after` is noted with it and taken back with it. */
  async function put(event: LedgerEvent, words: string, after: readonly LedgerEvent[] = []) {
    wanted.value = null
    stoppedAt.value = null
    heardFirst.value = null
    pending.value = 0
    edgeChosen.value = null
    inHand = false
    await bench.putAll([event, ...after].map(e => ({ event: e, words })))
  }
  /** Done as advised: the move just done must not be accepted twice. */
  function taken(event: LedgerEvent, words: string) {
    startDead()
    void put({ ...event, ...advised(true) } as LedgerEvent, words)
  }

  /** A finger that bounces: the same answer again within a moment, with no new move drawn since, is the same answer. */
  let lastTap = { what: '', at: 0 }
  function isBounce(what: string): boolean {
    const at = performance.now()
    const bounced = stale.value && lastTap.what === what && at - lastTap.at < BOUNCE_MS
    lastTap = { what, at }
    return bounced
  }
  function heard(what: Heard) {
    if (isBounce(what)) return
    const { to } = aim.value
    if (what === 'off' && to !== 0 && to !== last.value) return
    if (arrivals.value.length && wanted.value === null) return void went(what)
    const isAdvised = move.value?.do === 'shift' && move.value.to === to
    void put({ kind: 'shift', from: lever.value, to, heard: what, ...advised(isAdvised) }, `Noted ${what}`)
  }
  /**
   * The pass that was advised: clean to its end, or as far as the arrival that was touched; there clean, or as it was
   * heard.
   */
  function went(what: Heard) {
    const m = move.value
    const at = arrivals.value[stoppedAt.value ?? 0]
    if (m?.do !== 'pass' || !at) return
    const { to, back } = m
    const from = lever.value
    const there = Math.abs(to - from)
    type Went = Pick<RearOf<'went'>, 'from' | 'to' | 'back' | 'stop'>
    const note = (event: Went, ...after: Went[]) => {
      startDead()
      return put(
        { kind: 'went', ...event, ...advised(true) },
        `Noted ${what === 'clean' ? 'a clean pass' : what}`,
        after.map(e => ({ kind: 'went', ...e })),
      )
    }
    if (what !== 'clean' && stoppedAt.value === null) return void (heardFirst.value = what)
    // a chain comes off at an end only
    if (what === 'off' && at.to !== 0 && at.to !== last.value) return void (heardFirst.value = null)
    if (what !== 'clean') return note({ from, to, back, stop: { sprocket: at.to, way: at.way, heard: what } })
    if (stoppedAt.value === null) return note({ from, to, back, stop: null })
    // left off where all was still clean
    if (stoppedAt.value < there) return note({ from, to: at.to, back: false, stop: null })
    void note({ from, to, back: false, stop: null }, { from: to, to: at.to, back: false, stop: null })
  }
  function pass() {
    if (isBounce('pass')) return
    // the pass that is advised may be shorter than the whole one
    if (arrivals.value.length && !exceptions.value.size) return void went('clean')
    if (!mayLargest.value) return void (bench.hint.value = L_FIRST)
    const list = [...exceptions.value].map(sprocket => ({ sprocket, way: null, heard: null }))
    exceptions.value = new Set()
    void put(
      { kind: 'pass', exceptions: list, ...advised(false) },
      list.length ? `Noted a pass with ${list.length} not clean` : 'Noted a clean pass',
    )
  }
  function sight(offsetMm: number, words?: string) {
    const m = move.value
    if (m?.do === 'sight') taken({ kind: 'sight', at: m.at, offsetMm }, words ?? `${m.at} seen`)
  }
  /** Both stops looked at in one go, and both in line. */
  const bothUnseen = computed(
    () => move.value?.do === 'sight' && !mayLargest.value && rear.value.trace?.seenH === false,
  )
  function bothInLine() {
    if (!bothUnseen.value || stale.value || dead.value) return
    startDead()
    // both at once: between them another move would be drawn for a moment; a trainee's L waits for a signature, and H
    // is looked at after it
    void put({ kind: 'sight', at: 'L', offsetMm: 0, ...advised(true) }, 'L and H seen in line', [
      { kind: 'sight', at: 'H', offsetMm: 0 },
    ])
  }
  function edge(turns: number, found: boolean) {
    const m = move.value
    if (m?.do !== 'edge') return
    const sixteenths = toSixteenths(turns) * (m.way === 'out' ? 1 : -1)
    taken({ kind: 'edge', click: m.click, way: m.way, sixteenths, found }, 'Noted the edge')
  }
  const edgeFound = () => {
    if (edgeChosen.value !== null) edge(edgeChosen.value, true)
  }
  const noEdge = () => {
    if (move.value?.do === 'edge') edge(edgeLimitTurns(rear.value, move.value.way), false)
  }
  function offset(offsetMm: number) {
    const m = move.value
    if (m?.do === 'offset') taken({ kind: 'offset', click: m.click, offsetMm }, 'Noted the offset')
  }
  const gauge = ({ camberDeg, toeDeg, acrossMm }: HangerFit) =>
    taken({ kind: 'gauge', camberDeg, toeDeg, acrossMm }, 'Noted the hanger')

  /** Accepted before the move was there to be seen: not done, and not lost either. */
  const early = ref(false)
  watch(dead, isDead => {
    if (isDead || !early.value) return
    early.value = false
    bench.hint.value = 'That came before this move was there to be seen: once more if it is done'
  })
  /** Done as advised. Dead while the move is still the old one, or has only just appeared. */
  function accept(byKey = false) {
    if (pending.value !== 0) return logPending()
    const m = move.value
    if (!m || stale.value || dead.value) return void (early.value = byKey && m !== null)
    switch (m.do) {
      case 'turn':
        return taken({ kind: 'turn', screw: m.screw, sixteenths: toSixteenths(m.turns) }, `Logged ${sayTurns(m.turns)}`)
      case 'pass':
        return void went('clean')
      case 'sight':
        return sight(0, `${m.at} seen in line`)
      case 'edge':
        return edgeFound()
      case 'reclamp':
        return taken(
          { kind: 'reclamp', barrelSixteenthsOut: toSixteenths(m.barrelTurnsOut), how: schools.value.clamp.id },
          'Clamped again',
        )
      case 'replace':
        return taken({ kind: 'replace', part: m.part }, `New ${m.part}`)
      case 'done':
        return void navigateTo(`/jobs/${bench.number}/sheet`)
    }
  }

  /**
   * A press of a bracket key: the rub that is looked for, else (or when asked for) the screw at hand, as far as it
   * goes.
   */
  function bracket(by: 1 | -1) {
    const m = move.value
    if (m?.do === 'edge' && pending.value === 0 && !inHand) {
      // who chooses on a move has seen it
      dead.value = false
      const most = edgeLimitTurns(rear.value, m.way)
      edgeChosen.value = Math.max(0, Math.min(most, (edgeChosen.value ?? 0) + by / 8))
      return
    }
    const left = screw.value === 'barrel' ? barrelLeft(rear.value) : null
    const most = { in: left?.inTurns ?? MOST_TURNS, out: left?.outTurns ?? MOST_TURNS }
    const eighths = Math.round(schools.value.step.turns * 8)
    pending.value = Math.max(
      -Math.floor(most.in * 8 + 1e-6),
      Math.min(Math.floor(most.out * 8 + 1e-6), pending.value + by * eighths),
    )
  }
  function logPending() {
    const sixteenths = pending.value * 2 * (screw.value === 'barrel' ? 1 : -1)
    if (sixteenths)
      void put(
        { kind: 'turn', screw: screw.value, sixteenths, ...advised(false) },
        `Logged ${sayTurns(pending.value / 8)}`,
      )
  }
  /** The advised turn, wound while pedalling until the last shift did what it should. */
  const until = computed(() =>
    move.value && !stale.value && rear.value.trace
      ? woundUntil(move.value, rear.value.bench, rear.value.trace, setup.value?.spring)
      : null,
  )
  function wound(eighths: number) {
    const m = move.value
    const at = until.value
    if (m?.do !== 'turn' || !at || dead.value) return
    startDead()
    const { to } = rear.value.bench.findLast(e => e.kind === 'shift')!
    void put(
      { kind: 'turn', screw: 'barrel', sixteenths: 2 * eighths * Math.sign(m.turns), ...advised(true) },
      `Logged ${sayTurns(eighths / 8)}`,
      [{ kind: 'shift', from: to, to, heard: at.then }],
    )
  }
  /** The advice is left: it counts as sure, and the next best is said. */
  function leave() {
    const m = move.value
    if (!m || m.do === 'done' || stale.value || dead.value) return
    startDead()
    void put({ kind: 'declined', what: declineKey(m), ...advised(false) }, 'Left')
  }
  /** Something other than was advised. */
  const other = (event: LedgerEvent) => put({ ...event, ...advised(false) } as LedgerEvent, 'Noted')

  function clear() {
    pending.value = 0
    stoppedAt.value = null
    heardFirst.value = null
    inHand = false
    wanted.value = null
    exceptions.value = new Set()
  }

  return {
    setup,
    geometry,
    friction,
    picture,
    stale,
    failed,
    again,
    move,
    schools,
    dead,
    startDead,
    aim,
    aimAt,
    aimBy,
    arrivals,
    stoppedAt,
    heardFirst,
    stopAt,
    lever,
    last,
    mayLargest,
    exceptions,
    toggle,
    screw,
    pending,
    edgeChosen,
    heard,
    pass,
    sight,
    bothUnseen,
    bothInLine,
    edge,
    edgeFound,
    noEdge,
    offset,
    gauge,
    accept,
    leave,
    until,
    wound,
    takeScrew,
    bracket,
    logPending,
    other,
    clear,
  }
}
export type RearBench = ReturnType<typeof useRearBench>

/** More than any screw is turned at once. */
const MOST_TURNS = 12
