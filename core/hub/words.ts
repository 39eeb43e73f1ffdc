import { UNKNOWN } from '../chapter/looks'
import { sayChance } from '../quantity/chance'
import { fromSixteenths, sayTurns, sayTurnsOf } from '../quantity/turns'
import { TABLE_ONLY, type Standards } from '../standards/inForce'
import { HUB_CHECK_NAMES } from './checkWords'
import { hubFaultWords } from './faultWords'
import { HUB_WAY, HUB_WAY_WORDS, targetMm, type HubParts, type HubWay } from './kinds'
import { hubRatio, whichGear } from './ratio'
import type { HubEvent } from './events'
import { hubStepWords } from './stepWords'

/** The recorded figure of a reading, by how the hub is set. */
export const FIGURE_OF_WAY: Record<HubWay, string> = { rod: 'hub-rod', marks: 'hub-marks', twin: 'hub-play' }

export const hubTurnWords = (sixteenths: number): string =>
  `${sayTurnsOf(fromSixteenths(Math.abs(sixteenths)))} ${sixteenths > 0 ? 'tighter' : 'slacker'}`
export const READING_WORDS: Record<HubParts['way'], string> = {
  rod: 'Rod past the axle',
  marks: 'Marks apart, + too tight',
  twin: 'Play at the grip',
}

/** What is wanted in the setting gear, in words. */
export function sayTarget(p: HubParts, s: Standards = TABLE_ONLY): string {
  const { from, to } = targetMm(p, s)
  if (p.way === 'marks') return `marks in line in gear ${p.referenceGear}`
  if (p.way === 'twin') return `about ${((from + to) / 2).toFixed(0)} mm of free play at the grip`
  return from === 0
    ? `up to ${to.toFixed(1)} mm of rod past the axle in gear ${p.referenceGear}`
    : `about ${((from + to) / 2).toFixed(0)} mm of rod past the axle in gear ${p.referenceGear}`
}

function sayLook(id: string, outcome: string): string {
  const check = HUB_CHECK_NAMES.find(c => c.id === id)
  const seen = outcome === UNKNOWN ? 'cannot be told' : (check?.outcomes.find(o => o[0] === outcome)?.[1] ?? outcome)
  return `Hub, ${check?.of ?? id}: ${seen.toLowerCase()}`
}

/** What the microphone thinks of the highest gear, in words: never surer than it is. */
export const saySoundedTick = (tickOdds: number): string =>
  tickOdds >= 3 ? 'ticks and runs free' : tickOdds <= 1 / 3 ? 'ticks, but something brakes it' : 'cannot tell'

/** A hub's entry in a line of the ledger. */
export function sayHub(e: HubEvent): string {
  switch (e.kind) {
    case 'hubParts':
      return `Hub: ${e.parts.ratios.length} gears, ${HUB_WAY_WORDS[e.parts.way].toLowerCase()}, ${e.parts.ringTeeth} × ${e.parts.sprocketTeeth}`
    case 'hubSeen':
      return sayLook(e.check, e.outcome)
    case 'hubSounded':
      return `Microphone on the hub’s highest gear: ${saySoundedTick(e.tickOdds)}`
    case 'hubRead':
      return `Hub, in the setting gear: ${e.mm.toFixed(1)} mm`
    case 'hubCount':
      return `Hub, gear ${e.gear}: ${e.wheelTurns === null ? (e.neutral ? 'neutral, cranks turn free' : 'slips or finds no gear') : `${e.wheelTurns.toFixed(1)} wheel turns to ${e.crankTurns} of the cranks`}`
    case 'hubTurn':
      return `Hub cable ${hubTurnWords(e.sixteenths)}`
    case 'hubCured':
      return `Hub, put right: ${(hubFaultWords(e.fault) ?? e.fault).toLowerCase()}`
    case 'hubStep':
      return `Hub: ${hubStepWords(e.step)?.toLowerCase() ?? e.step}`
    case 'hubProof':
      return `Hub gear ${e.holds ? 'holds in every gear' : 'failed'}`
  }
}

/** A reading in mm, with a minus a reader sees. */
export const sayMm = (mm: number): string => `${mm < 0 ? '−' : ''}${Math.abs(mm).toFixed(1)} mm`

/** A turn of the adjuster as far as it goes, without its way. */
export const hubAmountWords = (sixteenths: number): string => sayTurns(fromSixteenths(Math.abs(sixteenths)))

/** What one count says, in words. */
export function sayCount(p: HubParts, c: { gear: number; crankTurns: number; wheelTurns: number | null }): string {
  if (c.wheelTurns === null) return 'slips or finds no gear'
  const read = whichGear(p, { crankTurns: c.crankTurns, wheelTurns: c.wheelTurns })
  const ratio = hubRatio({ crankTurns: c.crankTurns, wheelTurns: c.wheelTurns }, p).toFixed(3)
  if (read.none) return `ratio ${ratio} is none of this hub’s: count again, or check ring and sprocket`
  const [best] = read.gears
  return `ratio ${ratio}: ${best.gear === c.gear ? 'the gear asked for' : `really gear ${best.gear}`}, ${sayChance(best.chance)}`
}

/** The adjuster's name on this hub. */
export const adjusterOf = (p: HubParts): string => HUB_WAY[p.way].adjuster
