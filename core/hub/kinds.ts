import { z } from 'zod'
import { within } from '../quantity/within'
import { TABLE_ONLY, valueOrNull, type Standards } from '../standards/inForce'
import { HUB_ENTRIES } from '../standards/tables/hubs'
import { M5_PITCH_MM } from '../standards/tables/threads'
import { figureOf, meanOf, type FigureValue } from '../standards/entry'

/**
 * How a hub is set: by an indicator rod seen through the nut's window, by two marks, or by two cables to a box that
 * clicks inside the hub.
 */
export const HUB_WAYS = ['rod', 'marks', 'twin'] as const
export type HubWay = (typeof HUB_WAYS)[number]
export const HUB_WAY_WORDS: Record<HubWay, string> = {
  rod: 'Indicator rod',
  marks: 'Alignment marks',
  twin: 'Two cables',
}

/** What differs by way: cable a click, thread of the anchor or barrel, mm. All `model` but the threads. */
export const HUB_WAY: Record<HubWay, { stepMm: number; pitchMm: number; adjuster: string }> = {
  rod: { stepMm: 3.5, pitchMm: M5_PITCH_MM, adjuster: 'anchor' },
  marks: { stepMm: 2.5, pitchMm: M5_PITCH_MM, adjuster: 'barrel' },
  twin: { stepMm: 5, pitchMm: M5_PITCH_MM, adjuster: 'barrels' },
}

/**
 * The step of setting that asks a figure, and is done by reading one within its room; none where the wire is cut to
 * length.
 */
export const FIGURE_STEP: Record<HubWay, string | null> = { rod: 'window', marks: 'marks', twin: null }

/** A hub by its numbers. Gears are counted from 1, the lowest. */
export const HubParts = z
  .strictObject({
    /** Row of the table, or null when its ratios were typed. */
    standard: z.string().trim().min(1).max(40).nullable(),
    way: z.enum(HUB_WAYS),
    ratios: z
      .array(within('Ratio', 0.1, 5))
      .min(2, 'A hub gear has at least 2 gears')
      .max(20, 'At most 20 gears'),
    ringTeeth: z
      .int('Ring: whole teeth')
      .min(16, 'A ring has at least 16 teeth')
      .max(70, 'A ring has at most 70 teeth'),
    sprocketTeeth: z
      .int('Sprocket: whole teeth')
      .min(9, 'A sprocket has at least 9 teeth')
      .max(40, 'A sprocket has at most 40 teeth'),
    /** The gear it is set in. */
    referenceGear: z.int('Setting gear: a whole number').min(1, 'Gears count from 1'),
    /** Which end the hub goes to when the cable is let go: it differs by hub, so it is recorded. */
    slackest: z.enum(['lowest', 'highest']),
    /** A small derailleur shares the wheel: each is set on its own. */
    derailleur: z.boolean(),
  })
  .superRefine((p, ctx) => {
    p.ratios.forEach((r, i) => {
      if (i > 0 && r <= p.ratios[i - 1])
        ctx.addIssue({
          code: 'custom',
          path: ['ratios'],
          message: 'Give the ratios from the lowest gear to the highest',
        })
    })
    if (p.referenceGear > p.ratios.length)
      ctx.addIssue({
        code: 'custom',
        path: ['referenceGear'],
        message: `The hub has ${p.ratios.length} gears: there is no gear ${p.referenceGear} to set it in`,
      })
  })
export type HubParts = z.infer<typeof HubParts>

const wayOf = (id: string): HubWay => (id.startsWith('rod') ? 'rod' : id.startsWith('twin') ? 'twin' : 'marks')
const listed = (value: FigureValue): number[] => (typeof value === 'number' ? [value] : value)

/**
 * Hubs of the standards as parts to start from; ring and sprocket are the bike's own and only usual here (`memory`).
 */
export const usualHubs = (s: Standards = TABLE_ONLY): { id: string; title: string; parts: HubParts }[] =>
  HUB_ENTRIES.map(e => {
    const of = (key: string) => (figureOf(e, key) ? valueOrNull(s, 'hub', e.id, key) : null)
    const ratios = listed(of('ratios')!)
    return {
      id: e.id,
      title: e.title,
      parts: {
        standard: e.id,
        way: wayOf(e.id),
        ratios,
        ringTeeth: 42,
        sprocketTeeth: 18,
        referenceGear: meanOf(of('referenceGear') ?? ratios.length),
        slackest: wayOf(e.id) === 'rod' ? 'highest' : 'lowest',
        derailleur: false,
      },
    }
  })

/** Marks count as in line within half a millimetre; play within one. `model` */
const MARKS_MM = 0.5
const PLAY_MM = 1
/** What a hub that is in no table is set to, mm. `practice` for the rod and the play */
const UNLISTED = { rodMm: 1, playMm: 2 } as const

/**
 * What should be seen in the setting gear, mm, as it counts in this shop: rod past the axle, marks apart, play at the
 * grip.
 */
export function targetMm(p: HubParts, s: Standards = TABLE_ONLY): { from: number; to: number } {
  if (p.way === 'marks') return { from: -MARKS_MM, to: MARKS_MM }
  const of = (key: string) => (p.standard === null ? null : valueOrNull(s, 'hub', p.standard, key))
  if (p.way === 'twin') {
    const play = meanOf(of('playMm') ?? UNLISTED.playMm)
    return { from: play - PLAY_MM, to: play + PLAY_MM }
  }
  const rod = listed(of('rodMm') ?? UNLISTED.rodMm)
  const [from, to] = [rod[0], rod.at(-1)!]
  // "about 1 mm" is half a millimetre either way; "up to 2.5" is what it says
  return from === to ? { from: from - MARKS_MM, to: to + MARKS_MM } : { from, to }
}

/** Clicks from the slackest end to a gear; 0 is the slackest. */
export const clicksFromSlack = (p: Pick<HubParts, 'ratios' | 'slackest'>, gear: number): number =>
  p.slackest === 'highest' ? p.ratios.length - gear : gear - 1
/** The gear at so many clicks from the slackest end. */
export const gearAt = (p: Pick<HubParts, 'ratios' | 'slackest'>, clicks: number): number =>
  p.slackest === 'highest' ? p.ratios.length - clicks : clicks + 1
