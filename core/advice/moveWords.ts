import { SCREW_WORDS, wayOf } from '../chapter/screws'
import { sayTurns, sayTurnsOf } from '../quantity/turns'
import type { Move } from './contract'

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
export const isRightAsItStands = ({ right }: { right: number }): boolean => right >= 0.5

/** What is said first of a move that no turn of the barrel can stand for. */
export const STOP_TURNING = 'Stop turning the barrel'
export const barsBarrel = (move: Move): boolean => move.do === 'hanger' || move.do === 'replace'

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
