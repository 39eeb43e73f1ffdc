/*
 * A camera as a pinhole with a little barrel distortion (model, section 7), and where a point of the bike lies in its
 * picture.
 */

/** A place on the bike, mm from the middle of the smallest sprocket: + inboard, + up, + forward. */
export type Place = readonly [inboardMm: number, upMm: number, forwardMm: number]
/** A place in a picture, pixels from its upper left corner: + right, + down. */
export type Pixel = readonly [rightPx: number, downPx: number]

/** `bend`: the first radial term of the lens, by the square of the tangent from the middle; − is barrel. */
export type Lens = { focalPx: number; middle: Pixel; bend: number }
/** Where the camera stands and how it is turned, radians; all 0 looks straight forward, as seen from behind. */
export type Pose = { atMm: Place; yaw: number; pitch: number; roll: number }

/** A phone's own: about 4,000 pixels over 65° (model, section 7). */
export const PHONE = { acrossDeg: 65, focalShare: 0.5 / Math.tan((65 * Math.PI) / 360), spread: 0.06 } as const

/** The lens of a picture whose camera said nothing of itself. */
export const usualLens = (widthPx: number, heightPx: number): Lens => ({
  focalPx: PHONE.focalShare * Math.max(widthPx, heightPx),
  middle: [widthPx / 2, heightPx / 2],
  bend: 0,
})

/** Rows of the turn from the bike's directions to the camera's: right, down, and into the picture. */
export type Turned = readonly [Place, Place, Place]

export function turned({ yaw, pitch, roll }: Pose): Turned {
  const [cy, sy, cp, sp, cr, sr] = [
    Math.cos(yaw),
    Math.sin(yaw),
    Math.cos(pitch),
    Math.sin(pitch),
    Math.cos(roll),
    Math.sin(roll),
  ]
  // from behind inboard lies to the left, so right is − inboard
  const right = [-cy, 0, -sy] as const
  const into0 = [-sy, 0, cy] as const
  const down = [sp * into0[0], -cp, sp * into0[2]] as const
  const into = [cp * into0[0], sp, cp * into0[2]] as const
  const mix = (a: Place, b: Place, s: number, t: number): Place => [
    s * a[0] + t * b[0],
    s * a[1] + t * b[1],
    s * a[2] + t * b[2],
  ]
  return [mix(right, down, cr, -sr), mix(right, down, sr, cr), into]
}

export const dot = (a: Place, b: Place): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
export const minus = (a: Place, b: Place): Place => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]

/** Bends a direction as the lens does: tangents right and down of the middle, to pixels. */
export function onPicture({ focalPx, middle, bend }: Lens, x: number, y: number): Pixel {
  const by = focalPx * (1 + bend * (x * x + y * y))
  return [middle[0] + x * by, middle[1] + y * by]
}

/** Where a place lies in the picture; it must be before the camera. */
export function seen(lens: Lens, pose: Pose, place: Place, [right, down, into] = turned(pose)): Pixel {
  const from = minus(place, pose.atMm)
  const deep = dot(into, from)
  return onPicture(lens, dot(right, from) / deep, dot(down, from) / deep)
}

/** The direction that a pixel looks in, as tangents right and down of the middle; the lens's bend taken off. */
export function unbent({ focalPx, middle, bend }: Lens, u: number, v: number): readonly [number, number] {
  const x0 = (u - middle[0]) / focalPx
  const y0 = (v - middle[1]) / focalPx
  if (bend === 0) return [x0, y0]
  let x = x0
  let y = y0
  // a fixed point: the bend is small, five rounds leave nothing to speak of
  for (let i = 0; i < 5; i++) {
    const by = 1 + bend * (x * x + y * y)
    x = x0 / by
    y = y0 / by
  }
  return [x, y]
}

/** The straight line that a pixel looks along, from the camera. */
export function lookAlong(lens: Lens, pose: Pose, [u, v]: Pixel, [right, down, into] = turned(pose)): Place {
  const [x, y] = unbent(lens, u, v)
  return [
    x * right[0] + y * down[0] + into[0],
    x * right[1] + y * down[1] + into[1],
    x * right[2] + y * down[2] + into[2],
  ]
}
