import { typedNumber } from './typed'

/** What a line of a gauge says: a figure, one in a unit that is not worked in here, or none. */
export type Told =
  | { is: 'figure'; value: number; unit: 'mm' | 'N·m' | null }
  | { is: 'unit'; unit: string }
  | { is: 'none' }

/** A label before it, a sign, digits, a unit after it: all that such lines have in common. `practice` */
const LINE = /^(?:[a-z][a-z0-9_]*[\s:=]+)?([-+−]?\s*\d{1,6}(?:[.,]\d{1,5})?)\s*([a-z°µ"′.·*\-/]*)$/i
/** Words of gauges that have nothing to say; a number beside them is no figure. `practice` */
const TROUBLE = /err|over|fault|batt?|low/i
const LONGEST = 60
const UNITS: Record<string, 'mm' | 'N·m'> = {
  mm: 'mm',
  nm: 'N·m',
  'n.m': 'N·m',
  n·m: 'N·m',
  'n*m': 'N·m',
  'n-m': 'N·m',
}

/**
 * A line as a gauge sends it. @example toldBy('T +009.10 Nm') // { is: 'figure', value: 9.1, unit: 'N·m' }
 */
export function toldBy(line: string): Told {
  const words = line.trim()
  const read = words.length <= LONGEST && !TROUBLE.test(words) ? LINE.exec(words) : null
  if (!read) return { is: 'none' }
  const [, figure, said] = read
  const value = typedNumber(figure!.replace(/\s/g, '').replace(/^\+/, ''))
  if (!Number.isFinite(value)) return { is: 'none' }
  if (said === '') return { is: 'figure', value, unit: null }
  const unit = UNITS[said!.toLowerCase()]
  return unit ? { is: 'figure', value, unit } : { is: 'unit', unit: said! }
}
