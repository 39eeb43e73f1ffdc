import type { Pixel } from './camera'

/*
 * Leading a camera into the plane of the cassette while it is held: from straight behind the gaps between the sprockets
 * stand open, from aside each is filled with the next one's face. How open they stand has no scale of its own, so the
 * hand rocks through the plane once and is led back to where they stood most open.
 */

/** A part of a picture, 0 black to 255 white. */
export type Band = { width: number; height: number; data: Uint8Array }

/** Which part of the box that the largest sprocket is held in is looked at: above the middle, free of the pulley. */
const BAND = { above: 0.32, high: 0.12, wide: 1 } as const
/** Where that part lies, px, for a box so high about a middle. */
export const bandOf = ([u, v]: Pixel, highPx: number) => ({
  left: Math.round(u - (BAND.wide * highPx) / 2),
  top: Math.round(v - (BAND.above + BAND.high / 2) * highPx),
  width: Math.round(BAND.wide * highPx),
  height: Math.round(BAND.high * highPx),
})
/** Sprockets lean so much in a picture that is held a little askew, as tangents. */
const LEANS = [-0.08, -0.06, -0.04, -0.02, 0, 0.02, 0.04, 0.06, 0.08]
/** Light added to what is divided by, so that a black picture shows nothing, 0 to 255. */
const DARK = 20

/** Below this nothing stands in the box: a wall shows a hundredth of it, a cassette ten times as much. `model` */
const LEAST_SHOWN = 1e-4
/** Light turns to dark and back at least so often where sprockets stand; one strong edge is none. */
const LEAST_TURNS = 3
/** A turn is as strong as this share of the strongest. */
const STRONG = 0.2

/**
 * How open the gaps between the sprockets stand, in a measure of its own: light turns to dark so often and so far; 0
 * where no row of sprockets is seen.
 */
export function gapsShown({ width, height, data }: Band): number {
  const mean = data.reduce((s, v) => s + v, 0) / Math.max(1, data.length)
  const column = new Float64Array(width)
  let most = 0
  for (const lean of LEANS) {
    column.fill(0)
    for (let y = 0; y < height; y++) {
      const by = Math.round(lean * (y - height / 2))
      for (let x = Math.max(0, -by); x < Math.min(width, width - by); x++) column[x]! += data[y * width + x + by]!
    }
    const steep = [...column.keys()].slice(2, -2).map(x => (column[x + 1]! - column[x - 1]!) / height)
    // the fourth power: a few deep gaps say more than many shallow ones
    const shown = steep.reduce((s, d) => s + d ** 4, 0) / width
    if (shown > most && turnsIn(steep) >= LEAST_TURNS) most = shown
  }
  const shown = most / (mean + DARK) ** 4
  return shown < LEAST_SHOWN ? 0 : shown
}

/** How often a row of slopes turns from rising to falling or back, strongly. */
function turnsIn(steep: readonly number[]): number {
  const strongest = steep.reduce((most, d) => Math.max(most, Math.abs(d)), 0)
  const signs = steep.filter(d => Math.abs(d) > STRONG * strongest).map(Math.sign)
  return signs.filter((sign, i) => i > 0 && sign !== signs[i - 1]).length
}

/** Where a hand is that is led: how open against the most that was seen, whether it was passed, whether it is there. */
export type Led = { best: number; share: number; passed: boolean; there: boolean }

/** An old best counts less and less, for who comes nearer or steps back: by so much a look. */
const FORGETS = 0.9995
/** Passed is where it has closed again by so much; there is where it stands open nearly as far. `model` */
const PASSED = 0.6
const THERE = 0.85

/** One more look. @param was null at the first */
export function lead(was: Led | null, shown: number): Led {
  const old = was ? was.best * FORGETS : 0
  const best = Math.max(old, shown)
  const share = best > 0 ? shown / best : 0
  // a new best was not passed yet
  const passed =
    best > 0 && (shown > old ? shown < old * 1.03 && was?.passed === true : (was?.passed ?? false) || share < PASSED)
  return { best, share, passed, there: passed && share >= THERE }
}
