import { SAFE } from '../standards/model'
import type { Geometry } from './setup'

/**
 * Is a stop safe? Its own place, the cable left out of account (model, section 2).
 * @param placeMm from the smallest sprocket's plane, mm, + inboard
 */
export function stopIsSafe(g: Geometry, stop: 'H' | 'L', placeMm: number): boolean {
  const { from, to } = safeStopMm(g, stop)
  return placeMm >= from && placeMm <= to
}

/** Between which places a stop is safe, mm from the smallest sprocket's plane, + inboard. */
export function safeStopMm(g: Geometry, stop: 'H' | 'L'): { from: number; to: number } {
  const end = stop === 'H' ? 0 : g.n - 1
  return {
    from: g.placeMm[end] + SAFE[stop].from * g.pitchMm[end],
    to: g.placeMm[end] + SAFE[stop].to * g.pitchMm[end],
  }
}
