import { sayMove } from '../advice/moveWords'
import { mayReachLargest } from '../rear/gates'
import type { Heard } from '../response/heard'
import { GAUGE_RADIUS_MM } from '../rear/gaugeRadius'
import { sayTurns } from '../quantity/turns'
import { QUIET_GAP_MM, runningSound, shiftSound, type Stereo } from '../sound/chain'
import { rearTruth, rearVerdict } from './aftermath'
import type { RearBike } from './rearBike'
import { rearStand, type RearAct, type RearStand } from './rearStand'

/** What the screen shows of a rear at the practice stand: what an eye sees, never what is hidden, until it is over. */
export type RearShown = {
  teeth: readonly number[]
  placeMm: readonly number[]
  pulleyMm: number
  /** Sprocket the chain lies on, and the click the lever stands at. */
  chain: number
  lever: number
  /** Lean of cage and hanger as seen from behind, mm across a hand's breadth. */
  leanMm: number
  barrel: { turns: number; range: number }
  mayLargest: boolean
  seen: { H: number | null; L: number | null }
  /** What came of the last act, in words; null of a shift, which is heard. */
  found: { asked: string; is: string | null }[]
  /** A shift that nothing was said of yet. */
  unsaid: boolean
  touches: number
  cost: number
  over: boolean
  end: {
    won: boolean
    because: readonly string[]
    truth: readonly { what: string; figure: string }[]
    said: readonly { said: Heard; was: Heard }[]
  } | null
}

/** Over so much a lean shows beside the sprockets, mm. */
const LEAN_OVER_MM = 90

export function rearShown(bike: RearBike, seed: number, acts: readonly RearAct[]): RearShown {
  const stand = rearStand(bike, seed, acts)
  const { setup } = bike
  const seen: RearShown['seen'] = { H: null, L: null }
  const found: RearShown['found'] = []
  acts.forEach((act, at) => {
    const gap = stand.gaps.get(at)
    if (gap !== undefined) found.push({ asked: 'Gap at the largest, tip to tip', is: `${gap.toFixed(1)} mm` })
    if (act.do === 'turnB') found.push({ asked: `B screw ${sayWay(act.turns)}`, is: null })
    const event = stand.shown.get(at)
    if (!event) return
    if (event.kind === 'sight') seen[event.at] = event.offsetMm
    if (event.kind === 'turn' && event.screw !== 'barrel') seen[event.screw] = null
    if (act.do === 'replace' && act.part !== 'cable' && act.part !== 'shifter') seen.H = seen.L = null
    found.push({
      asked: sayMove(act.do === 'replace' ? { ...act, cause: 'friction' } : (act as never), setup.teeth),
      is: foundOf(event),
    })
  })
  const lastShift = stand.log.findLastIndex(e => e.kind === 'shift')
  return {
    teeth: setup.teeth,
    placeMm: stand.g.placeMm,
    pulleyMm: stand.pulleyMm,
    chain: stand.trace.chain,
    lever: stand.trace.lever,
    leanMm: stand.hidden.camberTan * LEAN_OVER_MM,
    barrel: { turns: stand.trace.barrelTurns, range: setup.barrelTurnsRange },
    mayLargest: mayReachLargest(stand.trace),
    seen,
    found,
    unsaid: lastShift >= 0 && !stand.said.some(s => s.at === lastShift),
    touches: stand.touches,
    cost: stand.cost,
    over: stand.over,
    end: stand.over ? { ...rearVerdict(bike, stand, acts), truth: rearTruth(bike), said: stand.said } : null,
  }
}

const sayWay = (turns: number): string => `${turns > 0 ? 'in' : 'out'} ${sayTurns(Math.abs(turns))}`
const signed = (x: number): string => `${x > 0 ? '+' : x < 0 ? '−' : ''}${Math.abs(x).toFixed(1)}`

function foundOf(event: RearStand['log'][number]): string | null {
  switch (event.kind) {
    case 'sight':
      return `${signed(event.offsetMm)} mm from the sprocket’s plane, + towards the spokes`
    case 'offset':
      return `the pulley stands ${signed(event.offsetMm)} mm from the sprocket’s plane`
    case 'hanger': {
      // what the gauge's tip shows at the rim, top against bottom
      const apart = 2 * GAUGE_RADIUS_MM * Math.tan((event.camberDeg * Math.PI) / 180)
      return `gauge ${Math.abs(apart).toFixed(1)} mm ${apart > 0 ? 'wider' : 'narrower'} at the top than at the bottom`
    }
    case 'reclamp':
      return 'clamped anew'
    case 'replace':
      return 'renewed'
    default:
      return null
  }
}

const CADENCE_RPM = 65
const RING_TEETH = 42

/** How the chain turns where it now lies, and what each made sound is told apart by. */
function turningOf(bike: RearBike, seed: number, acts: readonly RearAct[]) {
  const stand = rearStand(bike, seed, acts)
  const at = stand.trace.chain
  const turning = { cadenceRpm: CADENCE_RPM, ringTeeth: RING_TEETH, sprocketTeeth: bike.setup.teeth[at]! }
  return { stand, at, turning, noise: seed * 131 + acts.length }
}

/** The sound of the last act, if it was a shift. Made apart from how the chain runs on: it is to be heard at once. */
export function rearShiftSound(bike: RearBike, seed: number, acts: readonly RearAct[]): Stereo | null {
  const { stand, turning, noise } = turningOf(bike, seed, acts)
  const last = acts.length ? stand.shown.get(acts.length - 1) : undefined
  if (last?.kind !== 'shift') return null
  return shiftSound(last.heard, { ...turning, inward: stand.trace.lastInward }, noise)
}

/** The sound of the chain as it runs on. */
export function rearRunningSound(bike: RearBike, seed: number, acts: readonly RearAct[]): Stereo {
  const { stand, at, turning, noise } = turningOf(bike, seed, acts)
  const { g, hidden } = stand
  const running = {
    ...turning,
    z: (stand.pulleyMm - g.placeMm[at]!) / g.pitchMm[at]! - hidden.asymmetryPitch,
    sharpness: hidden.sharpness,
    end: at === 0 ? ('smallest' as const) : at === g.n - 1 ? ('largest' as const) : null,
    worn: hidden.worn.has(at),
    // a pulley that is near is near the largest
    gapMm: at === g.n - 1 ? stand.gapMm : null,
  }
  return runningSound(running, noise)
}

/** What it sounds like, in words for who cannot hear it: of the sound, not of its cause. */
export const SOUND_WORDS: Record<Heard, string> = {
  clean: 'One landing, then an even, quiet beat.',
  'rubs-in': 'One landing, then a rasp once a link on the left.',
  'rubs-out': 'One landing, then a rasp once a link on the right.',
  slow: 'A rising clatter for more than a second, then a landing.',
  none: 'The lever clicks; no landing comes.',
  jumps: 'Two landings, one after the other.',
  off: 'A landing, then loud knocks: the chain has left the cassette.',
  skips: 'A landing, then a hard knock now and again.',
}
export function soundWords(bike: RearBike, seed: number, acts: readonly RearAct[]): string | null {
  const stand = rearStand(bike, seed, acts)
  const last = stand.log.findLast(e => e.kind === 'shift')
  if (last?.kind !== 'shift') return null
  const rattles = stand.trace.chain === stand.g.n - 1 && stand.gapMm < QUIET_GAP_MM
  return SOUND_WORDS[last.heard] + (rattles ? ' Under it a low rattle that swells once a turn of the sprocket.' : '')
}
