import { along } from './along'

/** Where each sprocket stands across a drawing seen from behind: spokes left, frame right, true to scale. */
export function columnsAcross(placeMm: readonly number[], from: number, to: number) {
  const last = placeMm.at(-1) ?? 1
  const x = along([last, 0], [from, to])
  const mmPx = (to - from) / last
  return {
    at: placeMm.map(p => x(p)),
    mmPx,
    stepPx: placeMm.length > 1 ? (to - from) / (placeMm.length - 1) : to - from,
  }
}
