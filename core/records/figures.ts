import { sayTurnsOf } from '../quantity/turns'
import { HOUSING_PLACES } from '../rear/clamp'

/**
 * What a shop keeps a record of. `floor` is the least spread that counts as usual: nothing nearer than that to the
 * middle half is ever questioned (`model`). `byFrame`: compared among bikes of one kind of frame.
 */
export type RecordRule = {
  key: string
  what: string
  unit: string
  digits: number
  floor: number
  byFrame: boolean
  more: string
  less: string
  plus?: 'out' | 'in'
}

const LONG = ['longer', 'shorter'] as const
const MORE = ['more', 'less'] as const
const TURNED = ['further out', 'further in'] as const
const IN = ['further in', 'further out'] as const

const rule = (
  key: string,
  what: string,
  unit: string,
  digits: number,
  floor: number,
  words: readonly [string, string],
  byFrame = false,
): RecordRule => ({ key, what, unit, digits, floor, byFrame, more: words[0], less: words[1] })
/** Turns of a screw: `plus` is the way that counts up, as in the ledger. */
const turns = (key: string, what: string, floor: number, plus: 'out' | 'in'): RecordRule => ({
  ...rule(key, what, 'turns', 2, floor, plus === 'out' ? TURNED : IN),
  plus,
})

export const RECORD_RULES: readonly RecordRule[] = [
  rule('pull', 'Pull per click', 'mm', 2, 0.1, MORE),
  rule('cable', 'Cable over all clicks', 'mm', 1, 1, MORE),
  rule('ratio', 'Pull ratio', '', 3, 0.05, MORE),
  rule('pitch', 'Sprocket pitch', 'mm', 2, 0.05, MORE),
  ...HOUSING_PLACES.map(p => rule(`housing ${p}`, `Housing, ${p}`, 'mm', 0, 10, LONG, true)),
  rule('inner', 'Inner', 'mm', 0, 50, LONG, true),
  turns('barrel', 'Barrel, net', 0.5, 'out'),
  turns('barrel-out', 'Barrel as it left', 1, 'out'),
  turns('H', 'H screw, net', 0.25, 'in'),
  turns('L', 'L screw, net', 0.25, 'in'),
  turns('B', 'B screw, net', 0.5, 'in'),
  rule('gap', 'B gap', 'mm', 1, 1, MORE),
  rule('gap-sagged', 'B gap with sag', 'mm', 1, 1, MORE),
  rule('hanger', 'Hanger across the wheel, as found', 'mm', 1, 1, MORE),
  turns('slack', 'Slack found when it came back', 0.25, 'out'),
  rule('front-height', 'Front cage over the teeth', 'mm', 1, 1, MORE),
  rule('front-inner', 'Front inner gap', 'mm', 1, 0.5, MORE),
  rule('front-outer', 'Front outer gap', 'mm', 1, 0.5, MORE),
  turns('front-barrel', 'Front barrel, net', 0.5, 'out'),
  turns('front-H', 'Front H screw, net', 0.25, 'in'),
  turns('brake-barrel front', 'Front brake, barrel as it left', 1, 'out'),
  turns('brake-barrel rear', 'Rear brake, barrel as it left', 1, 'out'),
  rule('brake-let-out front', 'Front brake, cable let out', 'mm', 1, 2, MORE),
  rule('brake-let-out rear', 'Rear brake, cable let out', 'mm', 1, 2, MORE),
  rule('hub-rod', 'Rod past the axle', 'mm', 1, 1, MORE),
  rule('hub-marks', 'Marks apart, + too tight', 'mm', 1, 1, MORE),
  rule('hub-play', 'Play at the grip', 'mm', 1, 2, MORE),
  rule('hub-turns', 'Hub cable made tighter, net', 'turns', 2, 0.5, MORE),
  turns('front-L', 'Front L screw, net', 0.25, 'in'),
]

export const recordRule = (key: string): RecordRule | undefined => RECORD_RULES.find(r => r.key === key)

/** A record's figure as it is read: "295 mm", "3/8 turn out". */
export function sayRecord(rule: RecordRule, value: number): string {
  if (!rule.plus) return `${value.toFixed(rule.digits)}${rule.unit ? ` ${rule.unit}` : ''}`
  const sixteenths = Math.round(value * 16) / 16
  return sixteenths === 0
    ? 'none'
    : `${sayTurnsOf(sixteenths)} ${sixteenths > 0 ? rule.plus : rule.plus === 'out' ? 'in' : 'out'}`
}
