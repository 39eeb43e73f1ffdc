import { MAX_SPROCKETS } from './drivetrains'
import { z } from 'zod'
import { typedNumbers } from '../quantity/typed'

/** What can be measured on parts nobody knows, and with what. Counting is exact but for a slip. */
export const MEASUREMENTS = [
  'clicks',
  'cableAllMm',
  'cableClickMm',
  'sprockets',
  'stackMm',
  'thicknessMm',
  'chainMm',
  'pulleyMm',
  'pulledMm',
] as const
export type Measurement = (typeof MEASUREMENTS)[number]

type MeasurementRule = {
  what: string
  unit: string
  /** Which part it tells of. */
  of: 'shifter' | 'derailleur' | 'cassette'
  counted: boolean
  least: number
  most: number
  /** How it is done, in a line. */
  how: string
}

const rule = (
  of: MeasurementRule['of'],
  what: string,
  least: number,
  most: number,
  how: string,
  counted = false,
): MeasurementRule => ({ what, unit: counted ? '' : 'mm', of, counted, least, most, how })

export const MEASUREMENT_RULES: Record<Measurement, MeasurementRule> = {
  clicks: rule(
    'shifter',
    'Clicks, end to end',
    1,
    MAX_SPROCKETS - 1,
    'Wire off at the derailleur: count from the slackest to the tightest.',
    true,
  ),
  cableAllMm: rule(
    'shifter',
    'Cable over all clicks',
    5,
    60,
    'Mark the wire at the housing’s end, click to the tightest, measure how far the mark went.',
  ),
  cableClickMm: rule(
    'shifter',
    'Cable of one click',
    1,
    6,
    'In the middle of the lever’s range, so that no slack counts.',
  ),
  sprockets: rule('cassette', 'Sprockets', 2, MAX_SPROCKETS, 'Count them.', true),
  stackMm: rule(
    'cassette',
    'Stack, outer faces',
    6,
    75,
    'Caliper over the outer faces of the first and the last sprocket.',
  ),
  thicknessMm: rule(
    'cassette',
    'Thickness of a sprocket',
    1.2,
    3.5,
    'On a flat of a middle sprocket, not on a shaped tooth.',
  ),
  chainMm: rule('cassette', 'Chain, outer width', 4.5, 9, 'Over the outer plates, not over a pin.'),
  pulleyMm: rule(
    'derailleur',
    'Pulley, sideways travel',
    2,
    60,
    'Over as many clicks as it goes freely, square to the sprockets.',
  ),
  pulledMm: rule('derailleur', 'Cable pulled for that', 1, 60, 'The wire’s way over the same clicks.'),
}

/**
 * Reading error of an instrument, one spread, mm. `practice`: half a division for the ruler; a caliper in dirty hands.
 */
export const INSTRUMENTS = { caliper: { words: 'caliper', sdMm: 0.1 }, ruler: { words: 'ruler', sdMm: 0.5 } } as const
export type Instrument = keyof typeof INSTRUMENTS
export const Instrument = z.enum(['caliper', 'ruler'])

/** Repeats of one measurement, and the spread of one of them. */
export type Reading = { values: number[]; sd: number }
export type Readings = Partial<Record<Measurement, Reading>>

/** Mean of the repeats and its spread; repeats that lie further apart than the instrument's error widen it. */
export function readingOf({ values, sd }: Reading): { mean: number; sd: number } {
  const n = values.length
  const mean = values.reduce((s, v) => s + v, 0) / n
  const scatter = n > 1 ? Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / (n - 1)) : 0
  return { mean, sd: Math.max(sd, scatter) / Math.sqrt(n) }
}

type TypedReading = { is: 'empty' } | { is: 'values'; values: number[] } | { is: 'wrong'; words: string }

/**
 * Reads what was typed for a measurement: one figure or several repeats with spaces between; a comma may be the point.
 */
export function readTyped(measurement: Measurement, text: string): TypedReading {
  const r = MEASUREMENT_RULES[measurement]
  const values = typedNumbers(text)
  if (!values.length) return { is: 'empty' }
  if (values.some(v => !Number.isFinite(v)))
    return { is: 'wrong', words: `${r.what}: type a number, repeats with spaces between` }
  if (r.counted && (values.length > 1 || !Number.isInteger(values[0])))
    return { is: 'wrong', words: `${r.what}: one whole number` }
  if (values.some(v => v < r.least || v > r.most))
    return { is: 'wrong', words: `${r.what}: from ${r.least} to ${r.most}${r.unit && ` ${r.unit}`}` }
  if (values.length > 12) return { is: 'wrong', words: `${r.what}: at most 12 repeats` }
  return { is: 'values', values }
}
