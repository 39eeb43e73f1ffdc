import { sayRecord, type RecordRule } from '../chapter/records'
import { recordRule } from './chapters'
import { FRAME_WORDS, type FrameKind } from '../standards/frames'
import { FEWEST_BIKES, questionFor, type Seen } from './question'

/** How wide "like this" is taken, the closest first. */
export const WIDTHS = ['frame', 'standard', 'any'] as const
export type Width = (typeof WIDTHS)[number]

/** What the records hold of one figure, closest first, as far as it was asked for. */
export type SeenOfFigure = {
  figure: string
  seen: Seen
  frames: readonly { frame: FrameKind | null; seen: Seen }[]
}
/** What a shop has seen of one figure on bikes like this one. */
export type Like = { width: Width; words: string; seen: Seen }

/**
 * What the shop has seen of a figure on bikes like this, from the closest to the widest: of its standard and kind of
 * frame where frames decide, of its standard, of any such part. A width that holds no bikes is left out.
 * @param any the same figure over all standards, where it was looked up
 */
export function likesOf(
  rule: RecordRule,
  standard: string,
  frame: FrameKind | null,
  of: SeenOfFigure | undefined,
  any: Seen | undefined,
): Like[] {
  const out: Like[] = []
  const framed = rule.byFrame && frame ? of?.frames.find(f => f.frame === frame)?.seen : undefined
  if (framed) out.push({ width: 'frame', words: `${standard}, ${FRAME_WORDS[frame!]}`, seen: framed })
  if (of && (!framed || framed.bikes < of.seen.bikes))
    out.push({ width: 'standard', words: rule.byFrame ? `${standard}, any frame` : standard, seen: of.seen })
  const widest = out.at(-1)?.seen.bikes ?? 0
  if (any && any.bikes > widest)
    out.push({
      width: 'any',
      words: rule.byFrame && frame ? `any part, ${FRAME_WORDS[frame]}` : 'any part',
      seen: any,
    })
  return out
}

/** The closest that says what is usual, else the widest there is; null where nothing was seen. */
export const closestOf = (likes: readonly Like[]): Like | null =>
  likes.find(l => l.seen.bikes >= FEWEST_BIKES) ?? likes.at(-1) ?? null

/** What is taken of it: the median, as finely as such a figure is typed. */
export const usualOf = (rule: RecordRule, { median }: Seen): number =>
  rule.plus ? Math.round(median * 16) / 16 : Number(median.toFixed(rule.digits))

/** "285 mm (7), half between 243 and 295"; of fewer than five bikes only where they lie. */
export function sayLike(rule: RecordRule, { bikes, median, quarter, threeQuarters, least, most }: Seen): string {
  const say = (v: number) => sayRecord(rule, v)
  const brief = (v: number) => (rule.plus ? say(v) : v.toFixed(rule.digits))
  if (bikes === 1) return `${say(median)} (1)`
  const [from, to] = bikes < FEWEST_BIKES ? [least, most] : [quarter, threeQuarters]
  if (brief(from) === brief(to)) return `${say(median)} (${bikes}), all alike`
  return `${say(median)} (${bikes}), ${bikes < FEWEST_BIKES ? 'all' : 'half'} between ${brief(from)} and ${brief(to)}`
}

/**
 * The question a new figure deserves, asked of the closest bikes that are enough to say what is usual: knowing more of
 * a bike never silences it.
 */
export function questionOfLikes(figure: string, value: number, likes: readonly Like[]): string | null {
  const rule = recordRule(figure)
  const near = rule && likes.find(l => l.width !== 'any' && l.seen.bikes >= FEWEST_BIKES)
  return near ? questionFor(figure, value, near.seen) : null
}
