import { pitchDiameterMm, ROLLER_MM, tipDiameterMm } from './sprockets'

export type PointMm = { x: number; y: number }

/**
 * Outline of a sprocket's teeth, mm from its axle, a gap between two teeth at the top: roller seat, flanks and tips.
 * `std` ISO 606, the form of the least tooth gap: seat radius 0.505 d₁ over 140° − 90°/z, flank radius 0.12 d₁(z + 2),
 * cut at the tip circle.
 * @param steps points along each arc
 * @throws RangeError below 3 teeth
 */
export function toothOutline(teeth: number, steps = 5): PointMm[] {
  const pitchR = pitchDiameterMm(teeth) / 2
  const tipR = tipDiameterMm(teeth) / 2
  const seatR = 0.505 * ROLLER_MM
  const half = (Math.PI / 180) * (140 - 90 / teeth) * 0.5
  const flankR = 0.12 * ROLLER_MM * (teeth + 2)
  // one gap, its roller at (0, pitchR); angles from straight inward
  const seat: PointMm[] = []
  for (let i = 0; i <= steps; i++) {
    const a = (half * i) / steps
    seat.push({ x: seatR * Math.sin(a), y: pitchR - seatR * Math.cos(a) })
  }
  const centre = { x: (seatR + flankR) * Math.sin(half), y: pitchR - (seatR + flankR) * Math.cos(half) }
  const flank: PointMm[] = []
  // from where it leaves the seat, round its centre, out to the tips or to the middle of the tooth
  const middle = Math.PI / teeth
  for (let i = 1; i <= 200; i++) {
    const a = half - (i * Math.PI) / 2 / 200
    const p = { x: centre.x - flankR * Math.sin(a), y: centre.y + flankR * Math.cos(a) }
    const r = Math.hypot(p.x, p.y)
    const end = r > tipR || Math.atan2(p.x, p.y) > middle
    // the corner between flank and tip circle
    if (end) flank.push({ x: (p.x / r) * Math.min(r, tipR), y: (p.y / r) * Math.min(r, tipR) })
    else if (i % 8 === 0) flank.push(p)
    if (end) break
  }
  const right = [...seat, ...flank]
  const gap = [...[...right].reverse().map(p => ({ x: -p.x, y: p.y })), ...right.slice(1)]
  return Array.from({ length: teeth }, (_, k) => (2 * Math.PI * k) / teeth).flatMap(turn =>
    gap.map(({ x, y }) => ({
      x: x * Math.cos(turn) + y * Math.sin(turn),
      y: y * Math.cos(turn) - x * Math.sin(turn),
    })),
  )
}
