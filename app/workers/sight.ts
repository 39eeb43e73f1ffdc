import { expose } from 'comlink'
import { standInLook, standInPicture, type StandInAsk } from '#core/bench/standInCamera'
import type { Grey } from '#core/bench/render'
import { usualLens, type Pixel } from '#core/sight/camera'
import { findEnd, findNear, findStep, type Found, type Patch } from '#core/sight/edges'
import { LEAST_PX, UNMEASURABLE_WORDS, type Finding, type NoPicture } from '#core/sight/measures'
import { gapsShown } from '#core/sight/plane'
import { proposalsOf, type Proposal, type Standing } from '#core/sight/propose'
import { alongPulley, alongRim } from '#core/sight/alongRim'
import { shownBesides, teethFinder } from '#core/sight/tipsBeside'
import { askFromSide, lookOf, tell, type Told, type ToTell } from '#core/sight/tell'
import type { RimEnds, RimTouch, Touch } from '#core/sight/touch'

/** So much about a touch is looked at, px. */
const AROUND_PX = 70

let grey: { width: number; height: number; data: Uint8Array } | null = null
let findTeeth = teethFinder(patchOf)

const api = {
  /** Takes a picture in; it stays here until the next that can be read. */
  async open(file: Blob): Promise<{ is: 'open'; width: number; height: number } | { is: 'no'; why: NoPicture }> {
    let bitmap: ImageBitmap
    try {
      bitmap = await createImageBitmap(file)
    } catch {
      return { is: 'no', why: 'unreadable' }
    }
    const { width, height } = bitmap
    if (Math.max(width, height) < LEAST_PX) return { is: 'no', why: 'small' }
    const canvas = new OffscreenCanvas(width, height)
    const at = canvas.getContext('2d', { willReadFrequently: true })!
    at.drawImage(bitmap, 0, 0)
    bitmap.close()
    const { data: rgba } = at.getImageData(0, 0, width, height)
    grey = { width, height, data: lightOf(rgba) }
    findTeeth = teethFinder(patchOf)
    return { is: 'open', width, height }
  },
  /** The edge at a touch; null where none stands out. */
  find(kind: Finding, touched: Pixel, along: Pixel, widthPx: number, reachPx: number): Found | null {
    const patch = grey && patchOf(touched, AROUND_PX)
    if (!patch || kind === 'none') return null
    if (kind === 'step') return findStep(patch, touched, along, reachPx)
    return kind === 'end'
      ? findEnd(patch, touched, along, widthPx, reachPx)
      : findNear(patch, touched, along, widthPx, reachPx)
  },
  /** What is found without a touch, once other places stand. */
  propose: (standing: Record<string, Standing>, sprocketMm: number, pulleyTeeth: number | null): Proposal[] =>
    grey ? proposalsOf(standing, sprocketMm, focalPx(grey), pulleyTeeth, patchOf) : [],
  /** The near edge at more places, once its ends and its middle stand. */
  along: (ends: RimEnds, sprocket: { teeth: number; radiusMm: number }): RimTouch[] =>
    grey ? alongRim(ends, sprocket, focalPx(grey), patchOf) : [],
  /** The pulley's, once its ends stand too. */
  pulleyAlong: (ends: RimEnds, pulley: Omit<RimEnds, 'near'>, sprocketMm: number): Touch[] =>
    grey ? alongPulley(ends, pulley, sprocketMm, focalPx(grey), patchOf) : [],
  /** What touched places tell, and what was found by them besides. */
  tell(ask: ToTell): { told: Told; besides: readonly Touch[] } {
    if (!grey || lookOf(ask.what) !== 'side') return { told: tell(ask), besides: [] }
    const side = askFromSide(ask)
    const besides = shownBesides(side, findTeeth, patchOf)
    if (!besides) return { told: { is: 'unusable', words: UNMEASURABLE_WORDS.blurred }, besides: [] }
    const [last, ...others] = [...ask.pictures].reverse()
    const pictures = [...others.reverse(), { ...last!, besides }]
    return { told: tell({ ...ask, pictures }), besides: [...besides.tips, ...besides.pulleyTips] }
  },
  /** A picture from the side is looked at already while its last place is still to be touched. */
  ahead: (ask: ToTell): void => void (grey && findTeeth(askFromSide(ask))),
  /** How open the gaps between the sprockets stand in a part of a live picture. */
  gaps: ({ data, width, height }: ImageData): number => gapsShown({ width, height, data: lightOf(data) }),
  /** The same of the stand-in camera, with a small picture of what it is held at. */
  standInLook(ask: StandInAsk) {
    const { small, band } = standInLook(ask)
    return { small: pictureOf(small), shown: gapsShown(band) }
  },
  /** What the stand-in camera sees: this cassette with a pulley of its own, so many degrees from the side. */
  async rendered(ask: StandInAsk): Promise<Blob> {
    const picture = pictureOf(standInPicture(ask))
    const canvas = new OffscreenCanvas(picture.width, picture.height)
    canvas.getContext('2d')!.putImageData(picture, 0, 0)
    return canvas.convertToBlob({ type: 'image/jpeg', quality: 0.92 })
  },
}
export type SightApi = typeof api
expose(api)

const focalPx = ({ width, height }: Pick<Grey, 'width' | 'height'>) => usualLens(width, height).focalPx

/** How light each pixel is: luma, `std` ITU-R BT.601. */
function lightOf(rgba: Uint8ClampedArray): Uint8Array {
  const light = new Uint8Array(rgba.length / 4)
  for (let i = 0; i < light.length; i++)
    light[i] = 0.299 * rgba[4 * i]! + 0.587 * rgba[4 * i + 1]! + 0.114 * rgba[4 * i + 2]!
  return light
}
function pictureOf({ width, height, data }: Grey): ImageData {
  const rgba = new Uint8ClampedArray(4 * data.length)
  data.forEach((light, i) => rgba.set([light, light, light, 255], 4 * i))
  return new ImageData(rgba, width, height)
}

function patchOf([u, v]: Pixel, aroundPx: number): Patch {
  const around = Math.round(aroundPx)
  const left = Math.max(0, Math.round(u) - around)
  const top = Math.max(0, Math.round(v) - around)
  const width = Math.min(grey!.width, Math.round(u) + around) - left
  const height = Math.min(grey!.height, Math.round(v) + around) - top
  const data = new Uint8Array(Math.max(1, width) * Math.max(1, height))
  for (let y = 0; y < height; y++)
    data.set(grey!.data.subarray((top + y) * grey!.width + left, (top + y) * grey!.width + left + width), y * width)
  return { width: Math.max(1, width), height: Math.max(1, height), data, left, top }
}
