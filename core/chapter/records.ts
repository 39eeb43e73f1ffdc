import { sayTurnsOf } from '../quantity/turns'

/** One figure of one visit, for the shop's records. `standard` says under which numbers it is kept. */
export type RecordFigure = { standard: string; figure: string; value: number }

/** A fault of one visit under its standard; `what` says it in words wherever it is read. */
export type FaultFound = { standard: string; fault: string; cured: boolean }

/**
 * What a shop keeps a record of. `floor` is the least spread that counts as usual: nothing nearer than that to the
 * middle half is ever questioned (`model`). `byFrame`: compared among bikes of one kind of frame. `plus`: the way a
 * screw's turns count up, as in the ledger.
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

type Words = readonly [more: string, less: string]
export const LONG: Words = ['longer', 'shorter']
const MORE: Words = ['more', 'less']

/** A figure with its unit, the digits it is said with, and the least spread that is usual. */
export const figureRule = (
  key: string,
  what: string,
  unit: string,
  digits: number,
  floor: number,
  words: Words = MORE,
  byFrame = false,
): RecordRule => ({ key, what, unit, digits, floor, byFrame, more: words[0], less: words[1] })

/** Turns of a screw; `plus` is the way that counts up. */
export const turnsRule = (key: string, what: string, floor: number, plus: 'out' | 'in'): RecordRule => ({
  ...figureRule(key, what, 'turns', 2, floor, [`further ${plus}`, `further ${plus === 'out' ? 'in' : 'out'}`]),
  plus,
})

/** A record's figure as it is read: "295 mm", "3/8 turn out". */
export function sayRecord(rule: RecordRule, value: number): string {
  if (!rule.plus) return `${value.toFixed(rule.digits)}${rule.unit ? ` ${rule.unit}` : ''}`
  const sixteenths = Math.round(value * 16) / 16
  return sixteenths === 0
    ? 'none'
    : `${sayTurnsOf(sixteenths)} ${sixteenths > 0 ? rule.plus : rule.plus === 'out' ? 'in' : 'out'}`
}

/** Collects figures under a standard; what is null or no number is left out, never written as 0. */
export function keeping(): {
  keep: (standard: string, figure: string, value: number | null | undefined) => void
  kept: RecordFigure[]
} {
  const kept: RecordFigure[] = []
  return {
    kept,
    keep: (standard, figure, value) => {
      if (value !== null && value !== undefined && Number.isFinite(value)) kept.push({ standard, figure, value })
    },
  }
}
