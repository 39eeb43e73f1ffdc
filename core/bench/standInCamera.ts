import { randomFrom } from '../quantity/random'
import type { Pixel } from '../sight/camera'
import { bandOf } from '../sight/plane'
import { endsOf } from '../sight/rim'
import { render, type Grey, type Part } from './render'
import { sideScene } from './sideBench'
import { cameraBehind, cameraBeside, sightBike, weatherOf, type Given } from './sightBench'

/** What the stand-in camera is pointed at: the cassette of a job, from so many degrees to the frame's side. */
export type StandInAsk = Given & {
  /** From where it looks. */
  from: 'behind' | 'side'
  /** So far to the frame's side, from behind. */
  viewDeg: number
  seed: number
  /** Which picture of it: each is taken from a little elsewhere. */
  shot: number
}
/** A stand-in's picture is smaller than a phone's: it is drawn here, ray by ray. */
const WIDTH_PX = 2000
const HEIGHT_PX = 1500

/** The lamp is over the shoulder of who takes it. */
const LAMP_BESIDE = [-0.75, 0.6, -0.28] as const

/** What the stand-in camera stands before, and where; the same for the same seed. */
export function standInScene({ from, viewDeg, seed, shot, ...of }: StandInAsk) {
  const random = randomFrom(seed, 617, shot)
  const weather = { ...weatherOf(random, seed), blurPx: 1, grease: 0, fill: 150 }
  if (from === 'side') {
    const side = sideScene(seed, of)
    const camera = cameraBeside(side.sprocket, random, WIDTH_PX, HEIGHT_PX, 330)
    return { bike: side.bike, discs: side.discs, side, camera, weather: { ...weather, lightFrom: LAMP_BESIDE } }
  }
  const bike = sightBike(seed, of)
  const camera = cameraBehind(bike, viewDeg, random, WIDTH_PX, HEIGHT_PX, 380)
  return { bike, discs: bike.discs, side: null, camera, weather }
}

/** How it looks while it is held, small, and the band that tells how near it is to the plane. */
export function standInLook(ask: StandInAsk): { small: Grey; band: Grey } {
  const { bike, camera, weather } = standInScene(ask)
  const { upper, lower } = endsOf(camera.lens, camera.pose, bike.discs[ask.teeth.length - 1]!)
  const high = Math.hypot(upper[0] - lower[0], upper[1] - lower[1])
  const middle: Pixel = [(upper[0] + lower[0]) / 2, (upper[1] + lower[1]) / 2]
  const of = (part: Part) => render(bike.discs, camera.lens, camera.pose, weather, part)
  return {
    small: of({ left: 0, top: 0, width: WIDTH_PX, height: HEIGHT_PX, every: 5 }),
    band: of(bandOf(middle, high)),
  }
}

/** Its picture. */
export function standInPicture(ask: StandInAsk): Grey {
  const { discs, camera, weather } = standInScene(ask)
  return render(discs, camera.lens, camera.pose, weather, { left: 0, top: 0, width: WIDTH_PX, height: HEIGHT_PX })
}
