import { frontMove, type FrontMove, type FrontScrew, type FrontSeen } from './moves'
import { STOP_SCREW } from '../response/parameters'
import type { FrontOrder } from './orders'
import type { FrontParts } from './parts'
import { END_GAP_MM, type EndGaps } from './rub'

/** What was seen of one front shift, with how it came there. */
export type FrontShift = { from: number; to: number; seen: FrontSeen }

/** Where the front derailleur of a job stands after its log. */
export type FrontState = {
  parts: FrontParts | null
  gaps: EndGaps & { measured: { inner: boolean; outer: boolean } }
  /** The last fault seen and how often a move answered it since. */
  open: { seen: FrontSeen; answered: number } | null
  shifts: readonly FrontShift[]
  /** Net sixteenths since arrival: barrel + out, H and L + in. */
  net: Record<FrontScrew, number>
  steps: Partial<Record<FrontOrder, readonly string[]>>
  /** H was turned after L was last looked at: L wants looking at again. */
  lookAgain: boolean
}

export const noFront: FrontState = { parts: null, gaps: { innerMm: END_GAP_MM, outerMm: END_GAP_MM, measured: { inner: false, outer: false } }, open: null, shifts: [], net: { barrel: 0, H: 0, L: 0 }, steps: {}, lookAgain: false }

export type FrontEvent =
  | { kind: 'frontParts'; parts: FrontParts }
  | { kind: 'frontShift'; from: number; to: number; seen: FrontSeen }
  | { kind: 'frontTurn'; screw: FrontScrew; sixteenths: number }
  | { kind: 'frontGap'; plate: 'inner' | 'outer'; gapMm: number }
  | { kind: 'frontStep'; order: FrontOrder; step: string }

/** The front after one more entry. */
export function frontAfter(was: FrontState, e: FrontEvent): FrontState {
  switch (e.kind) {
    case 'frontParts': return { ...was, parts: e.parts }
    case 'frontShift': {
      const shifts = [...was.shifts, { from: e.from, to: e.to, seen: e.seen }]
      const open = e.seen === 'clean' ? null : was.open?.seen === e.seen ? was.open : { seen: e.seen, answered: 0 }
      return { ...was, shifts, open }
    }
    case 'frontTurn': {
      const wanted = was.open && frontMove(was.open.seen, was.open.answered)
      const answered = was.open && wanted?.screw === e.screw ? { ...was.open, answered: was.open.answered + 1 } : was.open
      // a stop that was turned has another gap: it is measured anew
      const measured = { inner: was.gaps.measured.inner && e.screw !== 'L', outer: was.gaps.measured.outer && e.screw !== 'H' }
      return { ...was, net: { ...was.net, [e.screw]: was.net[e.screw] + e.sixteenths }, open: answered, gaps: { ...was.gaps, measured }, lookAgain: e.screw === 'H' ? true : e.screw === 'L' ? false : was.lookAgain }
    }
    case 'frontGap': {
      const inner = e.plate === 'inner'
      return { ...was, gaps: { ...was.gaps, ...(inner ? { innerMm: e.gapMm } : { outerMm: e.gapMm }), measured: { ...was.gaps.measured, [e.plate]: true } }, lookAgain: inner ? false : was.lookAgain }
    }
    case 'frontStep': return { ...was, steps: { ...was.steps, [e.order]: [...new Set([...was.steps[e.order] ?? [], e.step])] } }
  }
}

/** The next move, a stop screw taken to move the cage as one at the rear moves its pulley (`model`): what was seen last by the written order, else an end gap away from its millimetre; null when nothing is open. */
export function nextFrontMove(s: FrontState): FrontMove | null {
  if (s.open) return frontMove(s.open.seen, s.open.answered)
  const eighths = (offMm: number) => Math.round((Math.abs(offMm) / STOP_SCREW.mmPerTurn) * 8)
  const inner = s.gaps.innerMm - END_GAP_MM
  // a wide inner gap: the inner limit lies too far inboard, L in; a narrow outer one: H out
  if (s.gaps.measured.inner && eighths(inner) > 0) return { screw: 'L', way: inner > 0 ? 'in' : 'out', eighths: Math.min(8, eighths(inner)), why: `the inner gap is ${s.gaps.innerMm.toFixed(1)} mm, about ${END_GAP_MM} is wanted` }
  const outer = s.gaps.outerMm - END_GAP_MM
  if (s.gaps.measured.outer && eighths(outer) > 0) return { screw: 'H', way: outer > 0 ? 'in' : 'out', eighths: Math.min(8, eighths(outer)), why: `the outer gap is ${s.gaps.outerMm.toFixed(1)} mm, about ${END_GAP_MM} is wanted` }
  return null
}
