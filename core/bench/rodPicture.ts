import { onPicture, turned, type Lens, type Pixel, type Pose } from '../sight/camera'
import type { Patch } from '../sight/edges'
import type { Random } from '../quantity/random'

/*
 * An axle's end with a rod out of it as a camera sees them from aside, patch by patch: a thread whose ridges glint, a
 * chamfer that darkens towards its end, a rod with a round end, blur, noise, a light that is brighter to one side.
 */

type Rod = { threadMm: number; rodMm: number; deeperMm: number }
const AROUND_PX = 30

/** @returns what is seen about a place of the picture */
export function rodPicture(lens: Lens, pose: Pose, rod: Rod, random: Random): (about: Pixel) => Patch {
  const ground = 40 + 50 * random.next()
  const steel = ground + 60 + 70 * random.next()
  const glint = 10 + 25 * random.next()
  const pitchMm = 0.9 + 0.2 * random.next()
  const chamferMm = 0.3 * random.next()
  const roundMm = 0.2 * random.next()
  const blurMm = 0.08 + 0.12 * random.next()
  const noise = 2 + 4 * random.next()
  const [slopeX, slopeY] = [4 * random.normal(), 4 * random.normal()]
  const rodHalfMm = 1.1
  const rodTone = 0.7 + 0.5 * random.next()
  const soft = (insideMm: number) => 1 / (1 + Math.exp((-1.7 * insideMm) / blurMm))
  const light = (x: number, y: number): number => {
    // the axle lies below 0, the rod comes out of it
    const ridge = glint * Math.sin((2 * Math.PI * (x + 0.15 * y)) / pitchMm)
    const end = Math.min(1, Math.max(0, -x / Math.max(0.02, chamferMm)))
    const axle = soft(rod.threadMm / 2 - Math.abs(y) - 0.15 * (1 - end)) * soft(-x)
    const tip = rod.rodMm - roundMm * (y / rodHalfMm) ** 2
    const pin = soft(rodHalfMm - Math.abs(y)) * soft(tip - x) * soft(x)
    const ofAxle = (steel + ridge - ground) * (0.55 + 0.45 * end) * axle
    return ground + slopeX * x + slopeY * y + ofAxle + (steel - ground) * rodTone * pin
  }
  const onPlane = flatLook(lens, pose)
  return ([u, v]) => {
    const [left, top] = [Math.round(u) - AROUND_PX, Math.round(v) - AROUND_PX]
    const size = 2 * AROUND_PX + 1
    const data = new Uint8Array(size * size)
    for (let k = 0; k < size; k++)
      for (let i = 0; i < size; i++) {
        const at: Pixel = [left + i, top + k]
        const [x, y] = onPlane(at, 0)
        // the rod lies deeper than the thread's outline
        const [xr, yr] = x > -0.3 && Math.abs(y) < 2 ? onPlane(at, rod.deeperMm) : [x, y]
        data[k * size + i] = Math.max(0, Math.min(255, light(xr, yr) + noise * random.normal()))
      }
    return { width: size, height: size, data, left, top }
  }
}

/** Where a place of the picture lies on a plane across the view at `z`, mm; the lens's bend undone by two rounds. */
function flatLook(lens: Lens, pose: Pose): (at: Pixel, z: number) => readonly [number, number] {
  const [right, down, into] = turned(pose)
  return ([u, v], z) => {
    let [x, y] = [(u - lens.middle[0]) / lens.focalPx, (v - lens.middle[1]) / lens.focalPx]
    for (let round = 0; round < 2; round++) {
      const [bu, bv] = onPicture(lens, x, y)
      ;[x, y] = [x + (u - bu) / lens.focalPx, y + (v - bv) / lens.focalPx]
    }
    const along = [0, 1, 2].map(i => right[i]! * x + down[i]! * y + into[i]!) as unknown as readonly [
      number,
      number,
      number,
    ]
    const s = (z - pose.atMm[2]) / along[2]
    const place = [0, 1, 2].map(i => pose.atMm[i]! + s * along[i]!)
    return [place[0]!, place[1]!]
  }
}
