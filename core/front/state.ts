import { END_GAP_MM, type EndGaps } from './endGaps'
import type { Cabled } from '../cable/events'
import type { CableState } from '../cable/state'
import type { FrontEvent, FrontSight } from './events'
import { frontMove, onRing, type FrontMove, type FrontScrew, type FrontSeen, type OnRing } from './moves'
import type { FrontOrder } from '../procedure/frontOrders'
import { FRONT_STEP_WORDS } from './stepWords'
import type { FrontParts } from './parts'

/** Where the front derailleur of a job stands after its log. */
export type FrontState = {
  parts: FrontParts | null
  /** What the belief is asked with: read anew with the parts as they were put last. */
  log: readonly FrontSight[]
  gaps: EndGaps & { measured: { inner: boolean; outer: boolean } }
  /** What each stop leaves by itself, the cable out of account; null when not looked at since it was turned. */
  byStop: { inner: number | null; outer: number | null }
  /** `byEye`: the height was judged, not read. */
  position: { heightMm: number | null; angleDeg: number | null; byEye: boolean }
  /** The last fault seen and how often a written move answered it since. */
  open: { seen: FrontSeen; on: OnRing; answered: number } | null
  /** Net sixteenths since arrival: barrel + out, H and L + in; the barrel's since the cable was last clamped. */
  net: Record<FrontScrew, number>
  steps: Partial<Record<FrontOrder, readonly string[]>>
  /** H was turned after L was last looked at: L wants looking at again. */
  lookAgain: boolean
}
export const noFront: FrontState = {
  parts: null,
  log: [],
  gaps: { innerMm: END_GAP_MM, outerMm: END_GAP_MM, measured: { inner: false, outer: false } },
  byStop: { inner: null, outer: null },
  position: { heightMm: null, angleDeg: null, byEye: false },
  open: null,
  net: { barrel: 0, H: 0, L: 0 },
  steps: {},
  lookAgain: false,
}

/** The front after one more entry. */
export function frontAfter(was: FrontState, e: FrontEvent): FrontState {
  if (e.kind === 'frontParts') return { ...was, parts: e.parts }
  if (e.kind === 'frontStep')
    return { ...was, steps: { ...was.steps, [e.order]: [...new Set([...(was.steps[e.order] ?? []), e.step])] } }
  const now = { ...was, log: [...was.log, e] }
  switch (e.kind) {
    case 'frontShift': {
      const on = onRing(e.to, was.parts?.rings.length ?? Math.max(e.from, e.to) + 1)
      const same = was.open?.seen === e.seen && was.open.on === on
      return { ...now, open: e.seen === 'clean' ? null : same ? was.open : { seen: e.seen, on, answered: 0 } }
    }
    case 'frontTurn': {
      const wanted = was.open && frontMove(was.open.seen, was.open.answered, was.open.on)
      const open = was.open && wanted?.screw === e.screw ? { ...was.open, answered: was.open.answered + 1 } : was.open
      // a stop that was turned has another gap: it is measured anew
      const measured = {
        inner: was.gaps.measured.inner && e.screw !== 'L',
        outer: was.gaps.measured.outer && e.screw !== 'H',
      }
      return {
        ...now,
        open,
        net: { ...was.net, [e.screw]: was.net[e.screw] + e.sixteenths },
        gaps: { ...was.gaps, measured },
        byStop: {
          inner: e.screw === 'L' ? null : was.byStop.inner,
          outer: e.screw === 'H' ? null : was.byStop.outer,
        },
        lookAgain: e.screw === 'H' ? true : e.screw === 'L' ? false : was.lookAgain,
      }
    }
    case 'frontGap': {
      const inner = e.plate === 'inner'
      if (e.byStop)
        return {
          ...now,
          byStop: { ...was.byStop, [e.plate]: e.gapMm },
          lookAgain: inner ? false : was.lookAgain,
        }
      return {
        ...now,
        gaps: {
          ...was.gaps,
          ...(inner ? { innerMm: e.gapMm } : { outerMm: e.gapMm }),
          measured: { ...was.gaps.measured, [e.plate]: true },
        },
        lookAgain: inner ? false : was.lookAgain,
      }
    }
    case 'frontPosition':
      return {
        ...now,
        position: {
          heightMm: e.heightMm ?? was.position.heightMm,
          angleDeg: e.angleDeg ?? was.position.angleDeg,
          byEye: e.heightMm === null ? was.position.byEye : e.byEye === true,
        },
      }
    case 'frontHand':
    case 'frontRub':
      return now
    case 'frontUndone':
    case 'frontSet': {
      const moved = e.kind === 'frontSet' && e.what === 'position'
      if (e.kind === 'frontSet' && e.what === 'stops')
        return {
          ...now,
          open: null,
          gaps: { ...was.gaps, measured: { inner: false, outer: false } },
          byStop: noFront.byStop,
          lookAgain: false,
        }
      return {
        ...now,
        open: null,
        net: { ...was.net, barrel: 0 },
        gaps: { ...was.gaps, measured: { inner: false, outer: false } },
        byStop: moved ? noFront.byStop : was.byStop,
        position: moved ? noFront.position : was.position,
      }
    }
  }
}

/**
 * What a step on the cable bench means here: its wire clamped is drawn anew, after being fed a new one.
 * @param cables as they stood before that step
 */
export function frontCabled(was: FrontState, { run, step }: Cabled, cables: CableState): FrontState {
  if (run !== 'front' || step !== 'clamped' || !was.parts) return was
  return frontAfter(was, { kind: 'frontSet', what: cables.cabled.front?.includes('fed') ? 'cable' : 'clamp' })
}

/** Steps that are done by the figure they ask: noting it is the step. */
const SEEN_BY: Readonly<Record<string, (s: FrontState) => boolean>> = {
  height: s => s.position.heightMm !== null,
  L: s => s.byStop.inner !== null,
  H: s => s.byStop.outer !== null,
}
export const asksFigure = (step: string): boolean => Object.hasOwn(SEEN_BY, step)
/** The steps of an order that are done: by their figure, or ticked. */
export const frontStepsDone = (s: FrontState, order: FrontOrder): readonly string[] =>
  FRONT_STEP_WORDS[order].map(x => x.id).filter(id => SEEN_BY[id]?.(s) || (s.steps[order] ?? []).includes(id))

/** What the written order would do next about what was seen last; null when nothing is open or its list is used up. */
export const writtenMove = (s: FrontState): FrontMove | null =>
  s.open && frontMove(s.open.seen, s.open.answered, s.open.on)
