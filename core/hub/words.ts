import { sayChance } from '../quantity/chance'
import { sayTurnsOf } from '../quantity/turns'
import { HUB_CHECKS, hubFault } from './checks'
import { HUB_WAY, HUB_WAY_WORDS, targetMm, type HubParts } from './kinds'
import { hubRatio, whichGear } from './ratio'
import type { HubEvent } from './state'
import { HUB_STEPS } from './steps'

export const hubTurnWords = (sixteenths: number): string =>
  `${sayTurnsOf(Math.abs(sixteenths) / 16)} ${sixteenths > 0 ? 'tighter' : 'slacker'}`
export const READING_WORDS: Record<HubParts['way'], string> = {
  rod: 'Rod past the axle',
  marks: 'Marks apart, + too tight',
  twin: 'Play at the grip',
}

/** What is wanted in the setting gear, in words. */
export function sayTarget(p: HubParts): string {
  const { from, to } = targetMm(p)
  if (p.way === 'marks') return `marks in line in gear ${p.referenceGear}`
  if (p.way === 'twin') return `about ${((from + to) / 2).toFixed(0)} mm of free play at the grip`
  return from === 0
    ? `up to ${to.toFixed(1)} mm of rod past the axle in gear ${p.referenceGear}`
    : `about ${((from + to) / 2).toFixed(0)} mm of rod past the axle in gear ${p.referenceGear}`
}

const LOOKED: Record<string, string> = {
  lock: 'lock nut',
  screwed: 'chain in the axle',
  moved: 'wheel moved since',
  wire: 'wire by hand',
  washers: 'anti-turn washers',
  way: 'gears along the grip',
  coupling: 'couplings',
}

/** A hub's entry in a line of the ledger. */
export function sayHub(e: HubEvent): string {
  switch (e.kind) {
    case 'hubParts':
      return `Hub: ${e.parts.ratios.length} gears, ${HUB_WAY_WORDS[e.parts.way].toLowerCase()}, ${e.parts.ringTeeth} × ${e.parts.sprocketTeeth}`
    case 'hubSeen':
      return `Hub, ${LOOKED[e.check] ?? e.check}: ${
        HUB_CHECKS.find(c => c.id === e.check)
          ?.outcomes.find(o => o[0] === e.outcome)?.[1]
          .toLowerCase() ?? e.outcome
      }`
    case 'hubRead':
      return `Hub, in the setting gear: ${e.mm.toFixed(1)} mm`
    case 'hubCount':
      return `Hub, gear ${e.gear}: ${e.wheelTurns === null ? 'slips or finds no gear' : `${e.wheelTurns.toFixed(1)} wheel turns to ${e.crankTurns} of the cranks`}`
    case 'hubTurn':
      return `Hub cable ${hubTurnWords(e.sixteenths)}`
    case 'hubCured':
      return `Hub, put right: ${(hubFault(e.fault)?.words ?? e.fault).toLowerCase()}`
    case 'hubStep':
      return `Hub: ${
        Object.values(HUB_STEPS)
          .flat()
          .find(s => s.id === e.step)
          ?.what.toLowerCase() ?? e.step
      }`
    case 'hubProof':
      return `Hub gear ${e.holds ? 'holds in every gear' : 'failed'}`
  }
}

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
