import { z } from 'zod'

/** What the catalogue holds. Shifter, derailleur and cassette are three records, mixed freely. */
export const KINDS = [
  'shifter',
  'derailleur',
  'cassette',
  'front-shifter',
  'front-derailleur',
  'lever',
  'brake',
  'hub',
  'chain',
  'thread',
  'torque',
  'target',
] as const
export const Kind = z.enum(KINDS)
export type Kind = (typeof KINDS)[number]

export const KIND_WORDS: Record<Kind, { one: string; many: string }> = {
  shifter: { one: 'Shifter', many: 'Shifters' },
  derailleur: { one: 'Derailleur', many: 'Derailleurs' },
  cassette: { one: 'Cassette', many: 'Cassettes' },
  'front-shifter': { one: 'Front shifter', many: 'Front shifters' },
  'front-derailleur': { one: 'Front derailleur', many: 'Front derailleurs' },
  lever: { one: 'Brake lever', many: 'Brake levers' },
  brake: { one: 'Brake', many: 'Brakes' },
  hub: { one: 'Hub gear', many: 'Hub gears' },
  chain: { one: 'Chain', many: 'Chains' },
  thread: { one: 'Thread', many: 'Threads' },
  torque: { one: 'Torque', many: 'Torques' },
  target: { one: 'Target', many: 'Targets and tolerances' },
}

/**
 * One figure a kind may have. `one`: a number; `each`: a number, or a list along the clicks, gaps or gears where they
 * are uneven; `range`: from and to. A figure the shop may not measure follows from the others.
 */
export type FigureRule = {
  key: string
  what: string
  unit: string
  shape: 'one' | 'each' | 'range'
  least: number
  most: number
  derived?: true
}

const one = (key: string, what: string, unit: string, least: number, most: number): FigureRule => ({
  key,
  what,
  unit,
  shape: 'one',
  least,
  most,
})
const each = (key: string, what: string, unit: string, least: number, most: number): FigureRule => ({
  key,
  what,
  unit,
  shape: 'each',
  least,
  most,
})
const range = (key: string, what: string, unit: string, least: number, most: number): FigureRule => ({
  key,
  what,
  unit,
  shape: 'range',
  least,
  most,
})
const derived = (rule: FigureRule): FigureRule => ({ ...rule, derived: true })

/** Every figure of every kind with its unit and the bounds within which a measurement can be true. */
export const FIGURES: Record<Kind, readonly FigureRule[]> = {
  shifter: [
    one('speeds', 'Speeds', '', 2, 14),
    each('pullMm', 'Cable pull per click', 'mm', 1, 6),
    derived(one('cableMm', 'Cable over all clicks', 'mm', 1, 80)),
  ],
  derailleur: [
    derived(one('listedRatio', 'Pull ratio, listed', '', 0.5, 3)),
    each('ratio', 'Pull ratio, fitted', '', 0.5, 3),
    one('turnMm', 'Barrel, one turn', 'mm', 0.5, 1.5),
  ],
  cassette: [
    one('speeds', 'Speeds', '', 2, 14),
    each('pitchMm', 'Sprocket pitch', 'mm', 2.5, 8),
    one('thicknessMm', 'Sprocket thickness', 'mm', 1, 3.5),
    derived(one('stackMm', 'Stack, outer faces', 'mm', 5, 110)),
    one('clearanceMm', 'Chain to next larger', 'mm', 0.05, 2),
  ],
  'front-shifter': [
    range('ringPullMm', 'Cable pull ring to ring', 'mm', 3, 20),
    range('clicks', 'Clicks on a double', '', 1, 8),
    range('trimMm', 'Trim, at the cage', 'mm', 0.2, 4),
  ],
  'front-derailleur': [
    range('heightMm', 'Plate over the big ring', 'mm', 0, 8),
    range('gapMm', 'Plate to chain', 'mm', 0, 5),
    range('travelMm', 'Cage travel', 'mm', 4, 20),
    range('ringSpacingMm', 'Ring spacing', 'mm', 4, 14),
    range('capacityTeeth', 'Capacity', 'teeth', 4, 40),
  ],
  lever: [range('pullMm', 'Cable over the stroke', 'mm', 5, 45), one('gain', 'Gain, hand to cable', '', 1, 8)],
  brake: [
    one('armRatio', 'Gain, cable to pad', '', 0.5, 6),
    range('gapMm', 'Pad gap a side', 'mm', 0.1, 6),
    range('rotorMm', 'Rotor, scrap and new', 'mm', 0.8, 3),
    range('padMm', 'Pad, scrap', 'mm', 0.1, 4),
    range('yokeMm', 'Yoke over the tyre', 'mm', 5, 80),
    one('straddleDeg', 'Straddle angle', '°', 30, 170),
  ],
  hub: [
    one('speeds', 'Speeds', '', 2, 20),
    each('ratios', 'Gear ratios', '', 0.1, 5),
    range('rodMm', 'Rod past the axle', 'mm', 0, 10),
    one('referenceGear', 'Setting gear', '', 1, 20),
    one('playMm', 'Play at the grip', 'mm', 0, 10),
  ],
  chain: [
    one('pitchMm', 'Pitch', 'mm', 12, 13.5),
    one('rollerMm', 'Roller', 'mm', 7, 9),
    one('outerMm', 'Outer width', 'mm', 4.5, 11),
    range('innerMm', 'Inner width', 'mm', 2, 5),
    one('wearPercent', 'Renew at', '%', 0.2, 2),
  ],
  thread: [
    one('diameterMm', 'Diameter', 'mm', 2, 14),
    one('pitchMm', 'Pitch, one turn', 'mm', 0.3, 2),
    range('travelTurns', 'Safe travel of a barrel', 'turns', 1, 14),
  ],
  torque: [range('torqueNm', 'Torque', 'N·m', 0.2, 80)],
  target: [
    range('mm', 'Target', 'mm', -20, 800),
    range('turns', 'Target', 'turns', 0, 20),
    range('pitch', 'Target', 'of a pitch', -2, 2),
    range('percent', 'Target', '%', 0, 400),
    range('factor', 'Factor', '', 0.1, 10),
  ],
}

export const ruleOf = (kind: Kind, key: string): FigureRule | undefined => FIGURES[kind].find(f => f.key === key)

/** Kinds a shop may add parts of its own to. */
export const OWN_KINDS = ['shifter', 'derailleur', 'cassette'] as const satisfies readonly Kind[]
export const isOwn = (entry: string): boolean => entry.startsWith('own-')
