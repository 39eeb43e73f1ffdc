/*
 * A gauge that talks all the time says hundreds of figures; one of them is meant. What that is depends on the gauge: a
 * length is meant where it stands still, a torque where it was highest before the hand let go.
 */

/** So long must a length stand before it is meant, and no longer than this may lie between two of one stream, ms. */
const STANDS_MS = 700
export const QUIET_MS = 400
const STREAM_MS = 1_500
/** So little is standing still, mm. `model` */
const STILL_MM = 0.05
/** Below this nobody pulls, N·m; and below this share of its highest the hand has let go. `model` */
const NO_PULL_NM = 0.3
const LET_GO = 0.5

export type Standing = { value: number; sinceMs: number; lastMs: number; told: boolean } | null
export type Pull = { mostNm: number; told: boolean } | null

/** One more length of a stream. @returns where it stands now, and the figure that is meant by it, if one is */
export function stood(was: Standing, value: number, atMs: number): { now: Standing; meant: number | null } {
  const same = was && Math.abs(value - was.value) <= STILL_MM && atMs - was.lastMs < STREAM_MS
  if (!same) return { now: { value, sinceMs: atMs, lastMs: atMs, told: false }, meant: null }
  const due = !was.told && atMs - was.sinceMs >= STANDS_MS
  return { now: { ...was, lastMs: atMs, told: was.told || due }, meant: due ? was.value : null }
}
/** Nothing came for `QUIET_MS`: a gauge that speaks when its button is pressed has said what it means. */
export const stoodQuiet = (was: Standing): { now: Standing; meant: number | null } =>
  was && !was.told ? { now: { ...was, told: true }, meant: was.value } : { now: was, meant: null }

/** One more torque of a stream: its highest is meant once the hand lets go. */
export function pulled(was: Pull, nm: number): { now: Pull; meant: number | null } {
  const size = Math.abs(nm)
  const due = was && !was.told ? was.mostNm : null
  if (size < NO_PULL_NM) return { now: null, meant: due }
  if (!was) return { now: { mostNm: size, told: false }, meant: null }
  if (was.told) return { now: was, meant: null }
  if (size < was.mostNm * LET_GO) return { now: { ...was, told: true }, meant: due }
  return { now: { mostNm: Math.max(was.mostNm, size), told: false }, meant: null }
}
/** Nothing came for `QUIET_MS`: a wrench that says its peak once has said it. */
export const pulledQuiet = (was: Pull): { now: Pull; meant: number | null } => ({
  now: null,
  meant: was && !was.told ? was.mostNm : null,
})
