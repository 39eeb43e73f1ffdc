import { SCREW_WORDS, wayOf } from '../chapter/screws'
import { CAUSE_WORDS, type Cause } from '../response/causes'
import { sayChance } from '../quantity/chance'
import { sayTurns, sayTurnsOf } from '../quantity/turns'
import { capital } from '../quantity/words'
import type { Analysis } from './analysis'
import type { Move } from './contract'
import type { Decision } from './decide'
import type { Posterior } from './posterior'

/** What a barrel turn does: mm of cable, and mm of pulley with its direction. */
function effectOfBarrel(posterior: Posterior, turns: number, ratio: number): string {
  const cableMm = Math.abs(turns) * posterior.setup.barrelPitchMm
  return `${cableMm.toFixed(2)} mm of cable, ${(cableMm * ratio).toFixed(2)} mm ${turns > 0 === posterior.geometry.threadMm > 0 ? 'towards the spokes' : 'towards the frame'}`
}

/** A move in the trade's words, short enough to read from the stand. */
export function sayMove(move: Move, teeth: readonly number[]): string {
  switch (move.do) {
    case 'shift':
      return `Shift to the ${teeth[move.to]} and listen`
    case 'turn':
      return `${SCREW_WORDS[move.screw]} ${sayWay(move)} ${sayTurnsOf(move.turns)}`
    case 'sight':
      return `See ${move.at} by hand`
    case 'offset':
      return `Measure the pulley's offset on the ${teeth[move.click]}`
    case 'edge':
      return `On the ${teeth[move.click]}, wind ${move.way} to the rub`
    case 'pass':
      return `Click by click to the ${teeth[move.to]}${move.back ? ' and back' : ''}, until one is not clean`
    case 'hanger':
      return 'Gauge the hanger'
    case 'reclamp':
      return `Clamp again, barrel ${sayTurns(move.barrelTurnsOut)} out`
    case 'replace':
      return `Renew the ${move.part === 'cable' ? 'cable and housing' : move.part}`
    case 'done':
      return 'Stop here'
  }
}

/** "out" or "in" by the screw's rotation: a barrel's + is out, a stop's + is in. */
export const sayWay = (move: { screw: 'barrel' | 'H' | 'L'; turns: number }): 'out' | 'in' =>
  wayOf(move.screw, move.turns)

/** From where a turn is seen, so that in and out are the same for everybody; null for what is no turn. `practice` */
export function seenFrom(move: Move): string | null {
  if (move.do !== 'turn') return null
  return move.screw === 'barrel' ? 'seen from the housing end' : 'seen from the head of the screw'
}

/** Which barrel way does what, and why: a barrel's direction is a matter of where it is seen from. `practice` */
export function whyTurns(move: Move): string | null {
  if (move.do !== 'turn') return null
  if (move.screw !== 'barrel')
    return move.screw === 'L'
      ? `${move.turns > 0 ? 'In: the pulley stops sooner, away from the spokes' : 'Out: the pulley may go further to the spokes'}`
      : `${move.turns > 0 ? 'In: the pulley stops sooner, away from the frame' : 'Out: the pulley may go further to the frame'}`
  return move.turns > 0
    ? 'The sleeve comes out, the housing’s way gets longer, the wire is drawn'
    : 'The sleeve goes in, the housing’s way gets shorter, the wire goes slack'
}

/** Told to stop, is it because the bike is right, or because nothing gains more? */
const isRightAsItStands = ({ right }: { right: number }): boolean => right >= 0.5

/** A move in two lines to be read from the stand: what it is about, and what is done. */
export function headOf(m: Move, teeth: readonly number[], now: { right: number }): { small: string; big: string } {
  switch (m.do) {
    case 'turn':
      return { small: `${SCREW_WORDS[m.screw]} ${sayWay(m)}`, big: sayTurnsOf(m.turns) }
    case 'shift':
      return { small: 'Shift and listen', big: `To the ${teeth[m.to]}` }
    case 'sight':
      return { small: 'See by hand', big: `${m.at} stop` }
    case 'edge':
      return { small: `On the ${teeth[m.click]}, cranks turning`, big: `Wind ${m.way}` }
    case 'offset':
      return { small: 'Measure the pulley', big: `On the ${teeth[m.click]}` }
    case 'pass':
      return { small: 'Click by click, listen', big: `To the ${teeth[m.to]}${m.back ? ', back' : ''}` }
    case 'hanger':
      return { small: STOP_TURNING, big: 'Gauge it' }
    case 'reclamp':
      return { small: `Barrel to ${sayTurns(m.barrelTurnsOut)} out`, big: 'Clamp again' }
    case 'replace':
      return { small: STOP_TURNING, big: m.part === 'cable' ? 'New cable' : `New ${m.part}` }
    case 'done':
      return { small: isRightAsItStands(now) ? 'It is right' : 'Nothing gains more', big: 'Stop here' }
  }
}

/** The usual caution at a move; null where hands are in no danger. `practice` */
export function cautionOf(m: Move): string | null {
  if (m.do === 'edge') return 'Fingers clear of chain and spokes while the cranks turn.'
  if (m.do === 'sight') return 'Wheel still. Push the derailleur by hand; no hand near a moving wheel.'
  if (m.do === 'reclamp' || (m.do === 'replace' && m.part === 'cable'))
    return 'Frayed ends stab and cut wire flies: goggles, and cap the end.'
  if (m.do === 'hanger') return 'Never bend titanium, carbon, a cast part or one with a crack: defer to the maker.'
  if (m.do === 'replace') return 'The maker’s instructions win. See L by hand again before the largest sprocket.'
  return m.do === 'turn' && m.screw === 'L' ? 'A spoke ticks: back in at once.' : null
}

/** What a barrel turn does, in a line of its own; null for any other move. */
export function effectOf(posterior: Posterior, analysis: Analysis, move: Move): string | null {
  return move.do === 'turn' && move.screw === 'barrel'
    ? effectOfBarrel(posterior, move.turns, meanRatio(analysis))
    : null
}

/** What is said first of a move that no turn of the barrel can stand for. */
export const STOP_TURNING = 'Stop turning the barrel'
export const barsBarrel = (move: Move): boolean => move.do === 'hanger' || move.do === 'replace'

/** Why this move, in one line. */
export function explain(posterior: Posterior, analysis: Analysis, decision: Decision): string {
  const { move, best } = decision
  const { setup, geometry } = posterior
  const g = geometry
  switch (move.do) {
    case 'sight':
      return move.at === 'L'
        ? `See L by hand before the ${setup.teeth[g.n - 1]}: cable slack, pulley pushed inboard, looked at from behind. A chain past it goes into the spokes.`
        : `See H by hand: cable slack, pulley against its outer stop, looked at from behind.`
    case 'turn': {
      if (move.screw !== 'barrel') {
        const stop = analysis.stops[move.screw]
        const safeAnyway = stop.bestGood - stop.good < WELL_ANYWAY
        if (safeAnyway)
          return `${move.screw} stands ${said(stop.offsetMm.mean)}: safe, and this shop's school wants it elsewhere.`
        return `${move.screw} stands ${said(stop.offsetMm.mean)} of the ${move.screw === 'L' ? 'largest' : 'smallest'} sprocket: well set ${sayChance(stop.good)} as it is, ${sayChance(stop.bestGood)} after the turn.`
      }
      const offset = analysis.offsetMm
      const slack = offset.mean < 0 ? 'slack' : 'tight'
      return `The cable is ${Math.abs(offset.mean).toFixed(1)} ± ${offset.sd.toFixed(1)} mm too ${slack}; right goes from ${sayChance(analysis.right)} to ${sayChance(best.right)}.`
    }
    case 'edge':
      return `Cranks turning, fingers clear, wind until it first rubs on the ${(move.way === 'out') === g.threadMm > 0 ? 'larger' : 'smaller'} neighbour: it tells more than another shift.${doubt(analysis, true)}`
    case 'pass':
      return `Each arrival listened to, as far as it is clean: it tells most for its time.${doubt(analysis, true)}`
    case 'shift':
      return `This arrival tells most now.${doubt(analysis, true)}`
    case 'offset':
      return `A measured offset here tells most now.${doubt(analysis, true)}`
    case 'hanger':
      return `The misfit may slope: gauge before a part is bought.${doubt(analysis, true)}`
    case 'reclamp':
      return `The window is past the barrel's travel by what is known: draw the inner snug at the pinch bolt and start again from ${sayTurns(move.barrelTurnsOut)} out.`
    case 'replace':
      return `${capital(REPLACE_WHY[move.cause])} (${sayChance(move.cause === 'wear' ? analysis.wear.any : analysis.causes[move.cause as 'friction'])}), and no setting cures it (best ${sayChance(best.right)}).`
    case 'done':
      return isRightAsItStands(analysis)
        ? `Every gear is expected clean from both sides: ${sayChance(analysis.right)} sure.`
        : `No further move gains enough: ${sayChance(analysis.right)} right as it stands.${doubt(analysis)}`
  }
}

/** A stop screw that gains less than this is turned for the school's sake. `model` */
const WELL_ANYWAY = 0.03

const REPLACE_WHY: Record<Cause, string> = {
  friction: 'this is friction in the run',
  hanger: 'the hanger is bent',
  mismatch: 'the parts do not match',
  wear: 'the sprockets are worn',
  tension: 'the cable cannot be set',
  stops: 'a stop cannot be set',
}

const said = (mm: number): string =>
  Math.abs(mm) < 0.05
    ? 'in line with the plane'
    : `${Math.abs(mm).toFixed(1)} mm ${mm > 0 ? 'inboard' : 'outboard'} of the plane`

/** Names the two causes that remain, when two do, and whether the move splits them. */
function doubt(analysis: Analysis, check = false): string {
  const left = (['tension', 'friction', 'hanger', 'mismatch', 'wear'] as const)
    .filter(c => analysis.causes[c] > 0.2 && analysis.causes[c] < 0.95)
    .sort((a, b) => analysis.causes[b] - analysis.causes[a])
  if (left.length < 2) return ''
  return ` Still open: ${CAUSE_WORDS[left[0]].toLowerCase()} ${sayChance(analysis.causes[left[0]])} or ${CAUSE_WORDS[left[1]].toLowerCase()} ${sayChance(analysis.causes[left[1]])}${check ? '; this splits them best' : ''}.`
}

const meanRatio = (analysis: Analysis): number => analysis.readings.reduce((s, r) => s + r.weight * r.belief.ratio, 0)
