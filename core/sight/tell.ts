import type { BrakeEvent } from '../brake/events'
import type { FrontEvent } from '../front/events'
import type { HubEvent } from '../hub/events'
import type { RearEvent } from '../rear/events'
import { usualLens } from './camera'
import { measureFromBehind, type BehindTold, type Figure } from './fromBehind'
import { measureFromSide, WIDEST_GAP_MM, type FromSide, type TipsFound } from './fromSide'
import { LENGTHS, sayElsewhere, sayOblique, sayWideGap, UNMEASURABLE_WORDS, type LengthId } from './measures'
import type { MeasureId } from './page'
import { measureBeside, measurePads, RULERS } from './planar'
import type { RimTouch, Touch } from './touch'

/** A picture, px, and its places by their ids (`measures.ts`). */
export type TouchedPicture = {
  widthPx: number
  heightPx: number
  touched: Readonly<Record<string, Touch>>
  /** The largest sprocket's edge at more places, found for it (`alongRim.ts`). */
  along?: readonly RimTouch[]
  /** The guide pulley's, likewise. */
  pulleyAlong?: readonly Touch[]
  /** Other teeth's tips, found for it (`tipsBeside.ts`). */
  besides?: TipsFound
}
/** Pictures of one thing with all its places touched, and the bike that it is of. */
export type ToTell = {
  what: MeasureId
  pictures: readonly TouchedPicture[]
  /** The cassette, the smallest first; empty where no sprocket is the ruler. */
  teeth: readonly number[]
  placeMm: readonly number[]
  /** The sprocket in gear. */
  click: number
  /** Null where they were not counted: told more widely. */
  pulleyTeeth: number | null
}
/** Both pads' gaps, and which is nearer. */
export type PadsTold = { left: Figure; right: Figure; nearer: 'left' | 'right' | 'even' }
export type Told =
  | { is: 'told'; figure: Figure; behind: BehindTold | null; pads?: PadsTold }
  /** It tells, but too widely to be noted: what would help. */
  | { is: 'wide'; figure: Figure; behind: BehindTold | null; words: string }
  | { is: 'unusable'; words: string }

/** The sprocket that the pulley is told from: the one in gear, or an end's. */
export const planeOf = (what: MeasureId, click: number, n: number): number =>
  what === 'offset' ? click : what === 'L' ? n - 1 : 0

/** How a thing is looked at. */
export const lookOf = (what: MeasureId): 'behind' | 'side' | 'beside' | 'pads' =>
  what === 'gap' ? 'side' : what in LENGTHS ? 'beside' : what === 'frontPads' || what === 'rearPads' ? 'pads' : 'behind'

/** What touched pictures tell, or why they do not. @throws RangeError naming the argument */
export function tell(ask: ToTell): Told {
  const look = lookOf(ask.what)
  return { beside: besideRuler, pads: besidePads, side: fromSide, behind: fromBehind }[look](ask)
}

function besideRuler({ what, pictures }: ToTell): Told {
  const { ruler, deeperMm } = LENGTHS[what as LengthId]
  const { touched } = pictures.at(-1)!
  const m = measureBeside({
    ruler: { ...RULERS[ruler], from: touched.rulerFrom!, to: touched.rulerTo! },
    length: { from: touched.from!, to: touched.to! },
    deeperMm,
  })
  return m.is === 'told'
    ? { is: 'told', figure: m, behind: null }
    : { is: 'unusable', words: UNMEASURABLE_WORDS[m.why] }
}

function besidePads({ pictures }: ToTell): Told {
  const { leftPad, leftRim, rightRim, rightPad } = pictures.at(-1)!.touched
  const m = measurePads({ leftPad: leftPad!, leftRim: leftRim!, rightRim: rightRim!, rightPad: rightPad! })
  return m.is === 'told'
    ? { is: 'told', figure: m.apart, behind: null, pads: m }
    : { is: 'unusable', words: UNMEASURABLE_WORDS[m.why] }
}

const largestOf = ({ teeth, placeMm }: Pick<ToTell, 'teeth' | 'placeMm'>) => ({
  teeth: teeth.at(-1)!,
  placeMm: placeMm.at(-1)!,
})

/** A picture from the side as it is measured in, with the pulley's tips that were touched so far. */
export function askFromSide(ask: Omit<ToTell, 'what' | 'click'>): FromSide {
  const { touched, besides, ...size } = ask.pictures.at(-1)!
  return {
    lens: usualLens(size.widthPx, size.heightPx),
    sprocket: largestOf(ask),
    pulleyTeeth: ask.pulleyTeeth,
    tips: ['tip1', 'tip2', 'tip3'].map(id => touched[id]!),
    pulleyTips: ['pulley1', 'pulley2', 'pulley3'].flatMap(id => touched[id] ?? []),
    besides,
  }
}

function fromSide(ask: ToTell): Told {
  const m = measureFromSide(askFromSide(ask))
  if (m.is !== 'told') return { is: 'unusable', words: UNMEASURABLE_WORDS[m.why] }
  return m.gapMm.sd > WIDEST_GAP_MM
    ? { is: 'wide', figure: m.gapMm, behind: null, words: sayWideGap(m.gapMm.sd, ask.pulleyTeeth !== null, m.from) }
    : { is: 'told', figure: m.gapMm, behind: null }
}

/** Farther from the plane that it is asked from, the pulley stands in another gear or was let go, mm. `model` */
export const MOST_OFF_MM = 12

function fromBehind(ask: ToTell): Told {
  const { pictures } = ask
  const m = measureFromBehind({
    sprocket: largestOf(ask),
    pulleyTeeth: ask.pulleyTeeth,
    planeMm: ask.placeMm[planeOf(ask.what, ask.click, ask.teeth.length)]!,
    pictures: pictures.map(({ widthPx, heightPx, touched: t, along, pulleyAlong }) => ({
      lens: usualLens(widthPx, heightPx),
      sprocket: { upper: t.upper!, lower: t.lower!, near: t.near!, along: along ?? [] },
      pulley: { upper: t.pulleyUpper!, lower: t.pulleyLower!, along: pulleyAlong ?? [] },
    })),
  })
  if (m.is === 'told' && Math.abs(m.offsetMm.mean) > MOST_OFF_MM)
    return { is: 'unusable', words: sayElsewhere(m.offsetMm.mean) }
  if (m.is === 'told') return { is: 'told', figure: m.offsetMm, behind: m }
  if (m.why !== 'oblique') return { is: 'unusable', words: UNMEASURABLE_WORDS[m.why] }
  const { offsetMm, viewDeg } = m.told
  const words = sayOblique(viewDeg.at(-1)!.mean, offsetMm.sd, pictures.length)
  return { is: 'wide', figure: offsetMm, behind: m.told, words }
}

type SightEvent = RearEvent | FrontEvent | HubEvent | BrakeEvent

/**
 * How it is written in the ledger; null for what is only kept with its picture.
 * @param sign which way a length is said that has two (`MEASURE_WAYS`)
 */
export function entryOf(
  what: MeasureId,
  click: number,
  { figure: { mean, sd }, pads }: Extract<Told, { is: 'told' }>,
  sign: 1 | -1 = 1,
): SightEvent | null {
  const mm = Math.round(mean * 10) / 10 || 0
  const photoSdMm = Math.min(3, Math.max(0.05, Math.round(sd * 100) / 100))
  switch (what) {
    case 'offset':
      return { kind: 'offset', click, offsetMm: mm, photoSdMm }
    case 'H':
    case 'L':
      return { kind: 'sight', at: what, offsetMm: mm, photoSdMm }
    case 'gap':
      return { kind: 'gap', gapMm: mm, how: 'photo', at: 'stand', photoSdMm }
    case 'rod':
    case 'marks':
      return { kind: 'hubRead', mm: sign * mm || 0 }
    case 'plate':
      return { kind: 'frontPosition', heightMm: mm, angleDeg: null }
    case 'innerGap':
    case 'outerGap':
      return { kind: 'frontGap', plate: what === 'innerGap' ? 'inner' : 'outer', gapMm: mm }
    case 'innerStop':
    case 'outerStop':
      return { kind: 'frontGap', plate: what === 'innerStop' ? 'inner' : 'outer', gapMm: mm, byStop: true }
    case 'frontPads':
    case 'rearPads':
      return pads ? { kind: 'brakeNearer', brake: what === 'frontPads' ? 'front' : 'rear', nearer: pads.nearer } : null
    default:
      return null
  }
}

/** A figure in words: its amount with the side, and how far off it may be, nineteen times in twenty. */
export function sayMeasured(
  what: MeasureId,
  { figure: { mean, sd }, pads }: Pick<Extract<Told, { is: 'told' }>, 'figure' | 'pads'>,
): { mm: string; off: string } {
  const off = (1.96 * sd).toFixed(1)
  if (pads) return { mm: `left ${pads.left.mean.toFixed(1)}, right ${pads.right.mean.toFixed(1)} mm`, off }
  const mm = Math.round(mean * 10) / 10
  const side = lookOf(what) !== 'behind' || mm === 0 ? '' : mm > 0 ? ' inboard' : ' outboard'
  return { mm: `${(side ? Math.abs(mm) : mm).toFixed(1)} mm${side}`, off }
}

/** How the cage leans, beside the sprockets. */
export const sayLean = ({ mean, sd }: Figure): string =>
  `Cage leans ${Math.abs(mean).toFixed(1)}° ${mean > 0 ? 'foot inboard' : 'foot outboard'} ± ${(1.96 * sd).toFixed(1)}`
/** From which side a picture was taken. */
export const sayView = ({ mean }: Figure): string =>
  `taken ${Math.abs(mean).toFixed(1)}° from ${mean > 0 ? 'the frame’s' : 'the spokes’'} side`
