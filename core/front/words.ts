import { FRONT_CAUSE_WORDS } from './causes'
import type { FrontCause } from './causes'
import { sayChance } from '../quantity/chance'
import { sayTurnsOf } from '../quantity/turns'
import type { FrontAdvice, FrontMoveTo } from './advise'
import type { FrontSet, HandReach } from './events'
import { FRONT_TURN_DOES, type FrontScrew } from './moves'
import { SCREW_WORDS, wayOf } from '../chapter/screws'
import { ringName, type FrontParts } from './parts'

export const HAND_WORDS: Record<HandReach, string> = {
  short: 'Does not reach the big ring',
  there: 'Stands over the big ring',
  past: 'Goes well past it',
}
export const FRONT_SET_WORDS: Record<FrontSet, string> = {
  position: 'Front cage set anew, clamped again',
  clamp: 'Front cable clamped again',
  cable: 'Front cable and housing renewed',
  lever: 'Front lever renewed',
}

export const frontWay = (m: { screw: FrontScrew; sixteenths: number }): 'in' | 'out' => wayOf(m.screw, m.sixteenths)

/** A move in the trade's words. */
export function sayFrontMove(m: FrontMoveTo, parts: FrontParts): string {
  switch (m.do) {
    case 'turn':
      return `${SCREW_WORDS[m.screw]} ${frontWay(m)} ${sayTurnsOf(m.sixteenths / 16)}`
    case 'shift':
      return `Shift ${ringName(parts, m.from)} to ${ringName(parts, m.to)} and look`
    case 'gap':
      return `Measure the ${m.plate} gap`
    case 'position':
      return 'Look at height and angle'
    case 'hand':
      return 'Pull the wire by hand'
    case 'undone':
      return 'Undo the cable: does it drop?'
    case 'set':
      return {
        position: 'Set height and angle anew',
        clamp: 'Clamp the cable again',
        cable: 'Renew cable and housing',
        lever: 'A lever that fits',
      }[m.what]
    case 'done':
      return 'Stop here'
  }
}

/** How it is done and why, in a line or two. */
export function explainFront(a: FrontAdvice, parts: FrontParts): string {
  const m = a.move
  const likely = (Object.entries(a.causes) as [FrontCause, number][]).sort((x, y) => y[1] - x[1])[0]
  const suspect =
    likely[1] >= 0.3
      ? `${FRONT_CAUSE_WORDS[likely[0]]} is the likeliest fault, ${sayChance(likely[1])}.`
      : 'No fault stands out yet.'
  switch (m.do) {
    case 'turn': {
      const does = FRONT_TURN_DOES[m.screw][frontWay(m)]
      return `${does[0].toUpperCase()}${does.slice(1)}. ${suspect}`
    }
    case 'shift':
      return `It tells most for what it costs. ${suspect}`
    case 'gap':
      return `${m.plate === 'inner' ? 'Small ring, largest sprocket: inner plate to chain' : 'Big ring, smallest sprocket: outer plate to chain'}. Cranks by hand. ${suspect}`
    case 'position':
      return `Outer plate 1 to 3 mm over the big ring’s teeth, plates in line with the rings${parts.cage === 'rotating' ? ' by both marks' : ''}: all else is set to it.`
    case 'hand':
      return 'Cranks still, the bare wire drawn outboard by hand: how far does its stop let the outer plate go? No shift, so nothing is thrown.'
    case 'undone':
      return `Lever at the small ring, cable undone: if it drops now, the cable was too tight or drags; if not, L or a stiff pivot holds it. Clamp again after. ${suspect}`
    case 'set':
      if (m.what === 'position')
        return 'Cable off, clamp loosened: 1 to 3 mm over the teeth, in line with the rings. Stops and cable are looked at anew after.'
      if (m.what === 'clamp')
        return parts.cage === 'rotating'
          ? 'Lever clicked to the big ring, cable drawn finger tight, clamped: the barrel has not enough thread for it.'
          : 'Lever at the small ring, barrel nearly in, cable drawn snug without moving the cage, clamped: more than the barrel is good for.'
      if (m.what === 'cable') return `No setting serves both ways: the run drags, ${sayChance(a.causes.friction)}.`
      return `Its stroke does not fit the rings, ${sayChance(a.causes.pull)}: pull families are not interchangeable.`
    case 'done':
      return a.right >= 0.5
        ? `Every shift both ways clean and both stops safe, ${sayChance(a.right)} sure.`
        : `No setting found: right with ${sayChance(a.right)} only. ${suspect} A qualified mechanic looks at it.`
  }
}
