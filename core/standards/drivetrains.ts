/** More sprockets than any cassette has. */
export const MAX_SPROCKETS = 14

/**
 * Drivetrain standards by their numbers. All `memory`: a shop measures its own and overrides.
 * `listedRatio` is the rounded ratio people quote; `pitchMm / pullMm` is the ratio that makes the trio meet.
 */
export type DrivetrainStandard = {
  id: string
  speeds: number
  /** Cable pulled by one click, mm. */
  pullMm: number
  /** Pulley travel per cable travel as listed, rounded. */
  listedRatio: number
  /** Centre-to-centre distance of neighbouring sprockets, mm. */
  pitchMm: number
  wideRange: boolean
}

const row = (
  id: string,
  speeds: number,
  pullMm: number,
  listedRatio: number,
  pitchMm: number,
  wideRange = false,
): DrivetrainStandard => ({ id, speeds, pullMm, listedRatio, pitchMm, wideRange })

export const DRIVETRAIN_STANDARDS: readonly DrivetrainStandard[] = [
  row('r17-6', 6, 3.2, 1.7, 5.5),
  row('r17-7', 7, 2.9, 1.7, 5.0),
  row('r17-8', 8, 2.8, 1.7, 4.8),
  row('r17-9', 9, 2.55, 1.7, 4.35),
  row('r17-10', 10, 2.3, 1.7, 3.95),
  row('r19-8', 8, 2.5, 1.9, 4.8),
  row('r14-10', 10, 2.8, 1.4, 3.95),
  row('r14-11', 11, 2.7, 1.4, 3.74),
  row('r12-10', 10, 3.4, 1.2, 3.95),
  row('r11-11w', 11, 3.6, 1.1, 3.9, true),
  row('r11-12w', 12, 3.3, 1.1, 3.65, true),
  row('r11-8', 8, 4.3, 1.1, 4.8),
  row('r11-9', 9, 4.0, 1.1, 4.35),
  row('r11-11x', 11, 3.5, 1.12, 3.9, true),
  row('r11-12x', 12, 3.25, 1.12, 3.65, true),
  row('r13-10', 10, 3.1, 1.3, 3.95),
  row('r12-11', 11, 3.1, 1.2, 3.7),
  row('r14-8', 8, 3.5, 1.4, 5.0),
  row('r15-9', 9, 3.0, 1.5, 4.55),
  row('r15-10', 10, 2.8, 1.5, 4.15),
  row('r15-11', 11, 2.6, 1.5, 3.85),
]

/** Kinds of bar that levers are made for. */
export type Bar = 'drop' | 'flat'
const DROP: readonly Bar[] = ['drop']
const FLAT: readonly Bar[] = ['flat']
const BOTH: readonly Bar[] = ['drop', 'flat']
/** Bars that a standard's lever is usually found on; a start for choosing by looking, never a rule. `memory` */
export const BARS_OF: Readonly<Record<string, readonly Bar[]>> = {
  'r17-6': BOTH,
  'r17-7': BOTH,
  'r17-8': BOTH,
  'r17-9': BOTH,
  'r17-10': DROP,
  'r19-8': DROP,
  'r14-10': DROP,
  'r14-11': DROP,
  'r12-10': FLAT,
  'r11-11w': FLAT,
  'r11-12w': FLAT,
  'r11-8': FLAT,
  'r11-9': FLAT,
  'r11-11x': FLAT,
  'r11-12x': FLAT,
  'r13-10': BOTH,
  'r12-11': DROP,
  'r14-8': DROP,
  'r15-9': DROP,
  'r15-10': DROP,
  'r15-11': DROP,
}
const SPEED_WORDS: Record<number, string> = {
  6: 'Six',
  7: 'Seven',
  8: 'Eight',
  9: 'Nine',
  10: 'Ten',
  11: 'Eleven',
  12: 'Twelve',
}
/** A standard as a person says it; its figures tell those of one name apart. */
export function sayStandard(s: DrivetrainStandard): string {
  const bars = BARS_OF[s.id] ?? BOTH
  const on = bars.length > 1 ? 'any bar' : `${bars[0]} bar`
  return `${SPEED_WORDS[s.speeds] ?? s.speeds} speeds, ${s.wideRange ? 'wide, ' : ''}${on}`
}
/** A standard's figures where there is room for little: pull × ratio, pitch. */
export const standardFigures = (s: DrivetrainStandard): string => `${s.pullMm} × ${s.listedRatio}, pitch ${s.pitchMm}`

/** Ratio that makes a stock trio meet: pitch ÷ pull. */
export const fittedRatio = (standard: DrivetrainStandard): number => standard.pitchMm / standard.pullMm

/**
 * A usual spread of teeth for a number of speeds, smallest first; a start for typing, never a claim about a bike.
 * `memory`
 */
export const USUAL_TEETH: Record<number, readonly number[]> = {
  6: [14, 16, 18, 21, 24, 28],
  7: [11, 13, 15, 18, 21, 24, 28],
  8: [11, 13, 15, 17, 20, 23, 26, 32],
  9: [11, 13, 15, 17, 20, 23, 26, 30, 34],
  10: [11, 13, 15, 17, 19, 21, 24, 28, 32, 36],
  11: [11, 13, 15, 17, 19, 21, 24, 28, 32, 37, 46],
  12: [11, 13, 15, 17, 19, 21, 24, 28, 32, 38, 44, 51],
}
