import { consider } from '../advice/advise'
import { sayMove } from '../advice/moveWords'
import { CAUSES, CAUSE_WORDS } from '../response/causes'
import type { Help } from './helps'
import type { RearBike } from './rearBike'
import { asSaid, rearStand, type RearAct } from './rearStand'

const KIND_OF_STEP: Record<string, string> = {
  shift: 'Listen to a gear.',
  pass: 'Listen to the gears, one after another.',
  turn: 'Turn a screw.',
  sight: 'See a stop by hand.',
  offset: 'Look where the pulley stands.',
  edge: 'Wind the barrel while you pedal, until it rubs.',
  hanger: 'Put the gauge on the hanger.',
  reclamp: 'Clamp the cable anew.',
  replace: 'Renew a part.',
  done: 'Nothing: it is likely to be right.',
}

/** What the advice would say, asked with what the trainee said was heard. */
export function rearHelp(bike: RearBike, seed: number, acts: readonly RearAct[], step: Help): string {
  const { advice, because } = consider(bike.setup, asSaid(rearStand(bike, seed, acts)))
  switch (step) {
    case 'check':
      return KIND_OF_STEP[advice.move.do]!
    case 'tells':
      return because
    case 'move':
      return sayMove(advice.move, bike.setup.teeth)
    case 'odds':
      return CAUSES.map(c => `${CAUSE_WORDS[c].toLowerCase()} ${Math.round(100 * advice.causes[c])} %`).join(', ')
  }
}
