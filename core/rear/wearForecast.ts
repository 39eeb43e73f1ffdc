/** A chain as it was gauged: when, and how much longer than new, per cent. */
export type Worn = { at: string; percent: number }

/** How fast chains wear where nobody knows this bike: per cent a year, and how far bikes differ. `model`, from memory of a year on a commuter */
const USUAL = { perYear: 0.4, sd: 0.25 }
/** A gauge is read to about this, per cent. `memory` */
const READ_SD = 0.05
/** Shrunk by more than this since it was gauged last, it is another chain. */
const NEW_CHAIN = 0.12
const YEAR_MS = 365.25 * 86_400_000

/**
 * When a chain will have reached its limit, as it wears on this bike: a line through what was gauged since it was new, its
 * slope shrunk towards the usual (normal prior, normal readings: the textbook's conjugate update). A day it was new that
 * nobody noted is taken as where the line starts.
 * @returns the likely day and the two between which it falls in two of three cases; null where it was never gauged
 */
export function wearForecast(
  readings: readonly Worn[],
  limitPercent: number,
): { likely: string; from: string; to: string; perYear: number } | null {
  const sorted = [...readings].sort((a, b) => a.at.localeCompare(b.at))
  const last = sorted.at(-1)
  if (!last) return null
  const newFrom = sorted.findLastIndex((r, i) => i > 0 && r.percent < sorted[i - 1]!.percent - NEW_CHAIN)
  const since = sorted.slice(Math.max(0, newFrom))
  const first = since[0]!
  const years = (at: string) => (Date.parse(at) - Date.parse(first.at)) / YEAR_MS
  let [mean, precision] = [USUAL.perYear, 1 / USUAL.sd ** 2]
  for (const r of since.slice(1)) {
    const t = years(r.at)
    if (t <= 0) continue
    const noise = 2 * (READ_SD / t) ** 2
    const rate = (r.percent - first.percent) / t
    mean = (mean * precision + rate / noise) / (precision + 1 / noise)
    precision += 1 / noise
  }
  const slope = Math.max(0.02, mean)
  const sd = Math.sqrt(1 / precision)
  const day = (perYear: number) => {
    const left = Math.max(0, limitPercent - last.percent)
    return new Date(Date.parse(last.at) + Math.min(20, left / Math.max(0.02, perYear)) * YEAR_MS)
      .toISOString()
      .slice(0, 10)
  }
  return { likely: day(slope), from: day(slope + sd), to: day(slope - sd), perYear: slope }
}
