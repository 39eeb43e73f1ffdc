import type { HubWay } from '../hub/kinds'

/** What an eye finds at a practice hub: the setting in its window, and the wheel turning to be counted. */
export type HubSight = {
  of: 'hub'
  way: HubWay
  /** As read last; null: not looked at since something was done. */
  readMm: number | null
  wanted: { from: number; to: number }
  /** The last count: it is turned, and whoever looks counts. `wheelTurns` null: it slips. */
  count: { gear: number; crankTurns: number; wheelTurns: number | null } | null
  adjuster: string
}

/** A crank turns once in so many seconds: slow enough to count the wheel by its mark. */
export const CRANK_S = 1.4

/**
 * Turns of crank and wheel so many seconds after it began to be turned. A gear that slips takes, lets go, and takes
 * again.
 */
export function hubPose(count: NonNullable<HubSight['count']>, s: number): { crank: number; wheel: number } {
  const crank = Math.min(count.crankTurns, Math.max(0, s) / CRANK_S)
  if (count.wheelTurns !== null) return { crank, wheel: (crank / count.crankTurns) * count.wheelTurns }
  const [takes, slips] = [0.8, 0.7]
  const whole = Math.floor(crank / (takes + slips))
  return { crank, wheel: whole * takes + Math.min(takes, crank - whole * (takes + slips)) }
}
