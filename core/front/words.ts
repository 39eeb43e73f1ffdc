import { FRONT_CAUSE_WORDS } from './causes'
import type { FrontCause } from './causes'
import { sayChance } from '../quantity/chance'
import { sayTurnsOf } from '../quantity/turns'
import type { FrontAdvice, FrontMoveTo } from './contract'
import { FRONT_TURN_DOES, type FrontScrew } from './moves'
import { SCREW_WORDS, wayOf } from '../chapter/screws'
import { ringName, type FrontParts } from './parts'

export const frontWay = (m: { screw: FrontScrew; sixteenths: number }): 'in' | 'out' => wayOf(m.screw, m.sixteenths)

/**
 * What a turn of the cable's tension is called on this bike: a small screw on the derailleur turns the other way round
 * from a barrel, in is tighter. `practice`
 */
export function tensionWords(
  parts: Pick<FrontParts, 'tensionBy'>,
  way: 'in' | 'out',
): { name: string; way: 'in' | 'out' } {
  switch (parts.tensionBy) {
    case 'inline adjuster':
      return { name: 'Inline adjuster', way }
    case 'tension screw':
      return { name: 'Tension screw', way: way === 'out' ? 'in' : 'out' }
    default:
      return { name: SCREW_WORDS.barrel, way }
  }
}
/** A screw and which way it is turned, as this bike has it. */
export const screwTurn = (
  m: { screw: FrontScrew; sixteenths: number },
  parts: FrontParts,
): { name: string; way: 'in' | 'out' } =>
  m.screw === 'barrel' ? tensionWords(parts, frontWay(m)) : { name: SCREW_WORDS[m.screw], way: frontWay(m) }

/** How often a shift goes there and back, said after it: nothing where once. */
export const sayTimes = (times = 1): string => (times === 1 ? '' : times === 2 ? ', twice' : `, ${times} times`)

/**
 * A move in the trade's words.
 * @param teeth of the cassette, smallest first: a shift names the sprocket it is looked at on
 */
export function sayFrontMove(m: FrontMoveTo, parts: FrontParts, teeth: readonly number[] = []): string {
  switch (m.do) {
    case 'turn': {
      const { name, way } = screwTurn(m, parts)
      return `${name} ${way} ${sayTurnsOf(m.sixteenths / 16)}`
    }
    case 'shift': {
      const on = teeth[m.sprocket]
      return `Shift ${ringName(parts, m.from)} to ${ringName(parts, m.to)}${on ? ` on the ${on}` : ''}${m.back ? `, then back${sayTimes(m.times)}` : ' and look'}`
    }
    case 'gap':
      if (m.byStop)
        return m.plate === 'inner'
          ? 'L by itself: cable slack, read the gap'
          : 'H by itself: draw the wire, read the gap'
      return `Measure the ${m.plate} gap`
    case 'position':
      return 'Look at height and angle'
    case 'undone':
      return 'Undo the cable: does it drop?'
    case 'set':
      return {
        position: 'Set height and angle anew',
        clamp: 'Clamp the cable again',
        cable: 'Renew cable and housing',
        lever: 'A lever that fits',
        stops: 'Set both stops anew',
      }[m.what]
    case 'done':
      return 'Stop here'
  }
}

/** How it is done and why, in a line or two. */
export function explainFront(a: FrontAdvice, parts: FrontParts, height = '1 to 3 mm'): string {
  const m = a.move
  const likely = (Object.entries(a.causes) as [FrontCause, number][]).sort((x, y) => y[1] - x[1])[0]
  const suspect =
    likely[1] >= 0.3
      ? `${FRONT_CAUSE_WORDS[likely[0]]} is the likeliest fault, ${sayChance(likely[1])}.`
      : 'No fault stands out yet.'
  /** What the screw answers stands before what else is likely. */
  const suspectOf = (screw: FrontScrew): string => {
    const own = screw === 'barrel' ? 'tension' : screw
    if (own === likely[0] || a.causes[own] < 0.05) return suspect
    const too = likely[1] >= 0.3 ? ` ${FRONT_CAUSE_WORDS[likely[0]]} too, ${sayChance(likely[1])}.` : ''
    return `${FRONT_CAUSE_WORDS[own]} is off, ${sayChance(a.causes[own])}.${too}`
  }
  switch (m.do) {
    case 'turn': {
      const does = FRONT_TURN_DOES[m.screw][frontWay(m)]
      const far = a.because === 'way alone' ? ' The way is sure; how far shows after it.' : ''
      return `${does[0].toUpperCase()}${does.slice(1)}. ${suspectOf(m.screw)}${far}`
    }
    case 'shift':
      if (a.because === 'last round')
        return 'Right, as far as is known: each shift once more since the last turn, before it leaves.'
      return `It tells most for what it costs. ${suspect}${m.back ? ' Clean each time is one touch; else say below what the first bad one did.' : ''}`
    case 'gap':
      if (m.byStop)
        return m.plate === 'inner'
          ? `The cable may hide where this stop stands. Small ring, largest sprocket, lever at the small ring and the housing out of a stop so that the wire hangs slack: inner plate to chain. Cranks by hand. ${suspect}`
          : `The cable may hide where this stop stands. Big ring, smallest sprocket; where it does not climb, over the ring by eye. Draw the bare wire by hand as far as it goes: outer plate to chain. Cranks by hand. ${suspect}`
      return `${m.plate === 'inner' ? 'Small ring, largest sprocket: inner plate to chain' : 'Big ring, smallest sprocket: outer plate to chain'}. Cranks by hand. ${suspect}`
    case 'position':
      return `Outer plate ${height.toLowerCase()} over the big ring’s teeth, plates in line with the rings${parts.cage === 'rotating' ? ' by both marks' : ''}: all else is set to it.`
    case 'undone':
      return `Lever at the small ring, cable undone: if it drops now, the cable was too tight or drags; if not, L or a stiff pivot holds it. Clamp again after. ${suspect}`
    case 'set':
      if (m.what === 'position')
        return `Cable off, clamp loosened: ${height.toLowerCase()} over the teeth, in line with the rings. Stops and cable are looked at anew after.`
      if (m.what === 'clamp')
        return parts.cage === 'rotating'
          ? 'Lever clicked to the big ring, cable drawn finger tight, clamped: the barrel has not enough thread for it.'
          : 'Lever at the small ring, barrel nearly in, cable drawn snug without moving the cage, clamped: more than the barrel is good for.'
      if (m.what === 'stops') return 'Both stops as the order says; they are looked at anew after.'
      if (m.what === 'cable') return `No setting serves both ways: the run drags, ${sayChance(a.causes.friction)}.`
      return `Its stroke does not fit the rings, ${sayChance(a.causes.pull)}: pull families are not interchangeable.`
    case 'done':
      return a.right >= 0.5
        ? `Every shift both ways clean and both stops safe, ${sayChance(a.right)} sure.`
        : `No setting found: right with ${sayChance(a.right)} only. ${suspect} A qualified mechanic looks at it.`
  }
}
