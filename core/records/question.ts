import { z } from 'zod'
import { sayTurnsOf } from '../quantity/turns'
import { countOf } from '../quantity/words'
import { sayRecord } from '../chapter/records'
import { recordRule } from './chapters'

/** What a shop has seen of one figure, over the latest of each bike. */
export const Seen = z.object({
  bikes: z.int(),
  least: z.number(),
  quarter: z.number(),
  median: z.number(),
  threeQuarters: z.number(),
  most: z.number(),
})
export type Seen = z.infer<typeof Seen>

/** Of a figure seen on more bikes than this the latest of them count: enough to say what is usual of late. `model` */
export const LATEST_BIKES = 400
/** Of how many bikes a figure is told. */
export const sayBikes = (bikes: number): string =>
  bikes < LATEST_BIKES ? countOf(bikes, 'bike') : `the latest ${LATEST_BIKES} bikes`

/** Fewer bikes than this say nothing of what is usual. `model` */
export const FEWEST_BIKES = 5
/** How many times the middle half's width beyond it is far outside; `model`, as box plots draw it, doubled. */
const FAR = 3

/**
 * The question a new figure deserves before it is kept, in words, or null when it is like the others.
 * @example questionFor('housing last loop', 360, seen) // "40 mm longer than any such bike here (12 bikes): keep it?"
 */
export function questionFor(figure: string, value: number, seen: Seen | undefined): string | null {
  const rule = recordRule(figure)
  if (!rule || !seen || seen.bikes < FEWEST_BIKES || !Number.isFinite(value)) return null
  const reach = FAR * Math.max(rule.floor, seen.threeQuarters - seen.quarter)
  const over = value > Math.max(seen.most, seen.threeQuarters + reach)
  const under = value < Math.min(seen.least, seen.quarter - reach)
  if (!over && !under) return null
  const apart = over ? value - seen.most : seen.least - value
  const by = rule.plus ? sayTurnsOf(apart) : sayRecord(rule, apart)
  return `${by} ${over ? rule.more : rule.less} than any such bike here (${sayBikes(seen.bikes)}): keep it?`
}
