import type { GAPS } from '../procedure/schools'
import { fromSixteenths } from '../quantity/turns'
import { gapInStandFor, gapNow, gapTurn, learntGapPerTurn, type GapAt } from './gap'
import { gapByLooks, type GapLook } from './gapLook'
import type { RearState } from './state'

type Span = { from: number; to: number }
/** How near the maker's own figure counts as met, mm. `practice` */
const MAKER_WITHIN_MM = 0.5
/** What is aimed at in the stand until the gap was measured with sag as well, mm. `practice` */
const BEFORE_SAG_MM: Span = { from: 4, to: 5 }

/** A B gap as it stands, what it is to be, and the turn between. */
type GapNext = {
  /** Last measured, carried on by the turns since; null when it was not. */
  standMm: number | null
  saggedMm: number | null
  targetMm: Span
  /** Turns of the B screw, in eighths, + in; 0 where nothing is to be turned. */
  turns: number
  learnt: { mmPerTurn: number; sdMm: number }
  /** How many gaps that was learnt from. */
  measured: number
  /**
   * The last look without a figure, as the screw then stood; null when the gap was measured since, or never so looked
   * at.
   */
  look: GapLook | null
  /** It stands as it should. */
  good: boolean
  /** By the maker's own figure, which wins over the school. */
  byMaker: boolean
}

/** The gaps measured in the stand, or with sag. */
const gapsAt = (rear: RearState, at: 'stand' | 'sagged'): GapAt[] =>
  rear.gaps
    .filter(x => x.event.at === at)
    .map(({ event: { gapMm, photoSdMm }, bSixteenths }) => ({
      turnsIn: fromSixteenths(bSixteenths),
      gapMm,
      ...(photoSdMm === undefined ? {} : { sdMm: photoSdMm }),
    }))

/** What a turn of this bike's B screw does, from the gaps measured in the stand. */
const learntOf = (rear: RearState) => learntGapPerTurn(gapsAt(rear, 'stand'))

/**
 * The gap as it stands, in the stand or with sag: the last one measured, carried on by the turns since; null when none
 * was.
 */
export const gapLeft = (rear: RearState, at: 'stand' | 'sagged'): number | null =>
  gapNow(gapsAt(rear, at), fromSixteenths(rear.net.B), learntOf(rear).mmPerTurn)

/** What to do about the B gap: the maker's own figure where it is known, else this shop's school. */
export function gapNext(rear: RearState, school: (typeof GAPS)[number] & { targetMm: Span }): GapNext {
  const learnt = learntOf(rear)
  const standMm = gapLeft(rear, 'stand')
  const saggedMm = gapLeft(rear, 'sagged')
  const makerMm = rear.parts?.derailleur.makerGapMm
  const wanted =
    makerMm === undefined ? school.targetMm : { from: makerMm - MAKER_WITHIN_MM, to: makerMm + MAKER_WITHIN_MM }
  const targetMm = school.sagged ? inStand(standMm, saggedMm, wanted) : wanted
  const looked = rear.gapLooks.length ? gapByLooks(rear.gapLooks, rear.net.B) : null
  const turns = looked ? looked.turns : standMm === null ? 0 : gapTurn(standMm, targetMm, learnt.mmPerTurn)
  return {
    standMm,
    saggedMm,
    targetMm,
    turns,
    learnt,
    measured: gapsAt(rear, 'stand').length,
    look: rear.gapLooks.at(-1)?.look ?? null,
    good: looked ? looked.good : standMm !== null && turns === 0,
    byMaker: makerMm !== undefined,
  }
}

/** With sag, what is wanted in the stand follows from the two measurements. */
function inStand(standMm: number | null, saggedMm: number | null, wanted: Span): Span {
  if (standMm === null || saggedMm === null) return BEFORE_SAG_MM
  const at = (wantedMm: number) =>
    gapInStandFor({ standMm: Math.max(0, standMm), saggedMm: Math.max(0, saggedMm), wantedMm })
  return { from: at(wanted.from), to: at(wanted.to) }
}
