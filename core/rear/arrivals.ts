import type { Heard } from '../response/heard'

export type PassWay = 'spokes' | 'frame'
/** An arrival of a pass: on which sprocket (0 the smallest), and from which side. */
export type PassArrival = { to: number; way: PassWay }

/** The arrivals of a pass in their order: click by click from the lever's gear to `to`, and back again. */
export function arrivalsOf(lever: number, to: number, back: boolean): PassArrival[] {
  const step = to > lever ? 1 : -1
  const clicks = Math.abs(to - lever)
  const there: PassArrival[] = Array.from({ length: clicks }, (_, i) => ({
    to: lever + step * (i + 1),
    way: step > 0 ? 'spokes' : 'frame',
  }))
  const home: PassArrival[] = Array.from({ length: back ? clicks : 0 }, (_, i) => ({
    to: to - step * (i + 1),
    way: step > 0 ? 'frame' : 'spokes',
  }))
  return [...there, ...home]
}

/** Where a pass ended before its end, and what was heard there. */
export type PassStop = { sprocket: number; way: PassWay; heard: Exclude<Heard, 'clean'> }

/**
 * What was heard of a pass: every arrival clean up to where it stopped. A stop that does not lie on its way is heard
 * first.
 */
export function heardOf(
  pass: { to: number; back: boolean; stop: PassStop | null },
  lever: number,
): { from: number; to: number; heard: Heard }[] {
  const arrivals = arrivalsOf(lever, pass.to, pass.back)
  const { stop } = pass
  const at = stop ? arrivals.findIndex(a => a.to === stop.sprocket && a.way === stop.way) : arrivals.length
  const clean = arrivals.slice(0, Math.max(0, at)).map((a, i) => ({
    from: arrivals[i - 1]?.to ?? lever,
    to: a.to,
    heard: 'clean' as Heard,
  }))
  return stop ? [...clean, { from: clean.at(-1)?.to ?? lever, to: stop.sprocket, heard: stop.heard }] : clean
}
