/** A figure that grows as a bike is ridden, as it was found: when, and how much. */
export type Worn = { at: string; value: number }

/**
 * How something wears: its figure when new, growth a year where nobody knows this bike, how far bikes differ, and how
 * finely it is read.
 */
type Wears = {
  fresh: number
  perYear: number
  sd: number
  readSd: number
  /** Shrunk by more than this since it was read last, it is another one. */
  renewedBy: number
  least: number
}
export const WEARS = {
  /** Per cent longer than new. `model`, from memory of a year on a commuter; a gauge is read to about 0.05. */
  chain: { fresh: 0, perYear: 0.4, sd: 0.25, readSd: 0.05, renewedBy: 0.12, least: 0.02 },
  /** Millimetres of cable lost to friction, as the shifts tell. `model` */
  cable: { fresh: 0.28, perYear: 0.12, sd: 0.08, readSd: 0.1, renewedBy: 0.25, least: 0.01 },
} as const satisfies Record<string, Wears>
/**
 * From so much lost to friction on no place of the barrel keeps every gear clean on most bikes, mm. `model`, section 3
 */
export const CABLE_LIMIT_MM = 0.6
const YEAR_MS = 365.25 * 86_400_000

/**
 * When something will have reached its limit, as it wears on this bike: a line through what was read since it was new,
 * its slope shrunk towards the usual (normal prior, normal readings: the textbook's conjugate update). A day it was new
 * that nobody noted is taken as where the line starts.
 * @param renewedAt when it was last renewed, where that is known: what was read until then is of the old one
 * @returns the likely day and the two between which it falls in two of three cases; null where nothing is known of it
 */
export function wearForecast(
  wears: Wears,
  readings: readonly Worn[],
  limit: number,
  renewedAt: string | null = null,
): { likely: string; from: string; to: string; perYear: number } | null {
  const since = sinceNew(wears, readings, renewedAt)
  const [first, last] = [since[0], since.at(-1)]
  if (!first || !last) return null
  const years = (at: string) => (Date.parse(at) - Date.parse(first.at)) / YEAR_MS
  let [mean, precision] = [wears.perYear, 1 / wears.sd ** 2]
  for (const r of since.slice(1)) {
    const t = years(r.at)
    if (t <= 0) continue
    const noise = 2 * (wears.readSd / t) ** 2
    const rate = (r.value - first.value) / t
    mean = (mean * precision + rate / noise) / (precision + 1 / noise)
    precision += 1 / noise
  }
  const slope = Math.max(wears.least, mean)
  const sd = Math.sqrt(1 / precision)
  const day = (perYear: number) => {
    const left = Math.max(0, limit - last.value)
    return new Date(Date.parse(last.at) + Math.min(20, left / Math.max(wears.least, perYear)) * YEAR_MS)
      .toISOString()
      .slice(0, 10)
  }
  return { likely: day(slope), from: day(slope + sd), to: day(slope - sd), perYear: slope }
}

/** What was read of the one that is on the bike now, from when it was new as far as that is known. */
function sinceNew(wears: Wears, readings: readonly Worn[], renewedAt: string | null): Worn[] {
  const sorted = [...readings].sort((a, b) => a.at.localeCompare(b.at))
  const later = sorted.filter(r => renewedAt === null || r.at > renewedAt)
  const newFrom = later.findLastIndex((r, i) => i > 0 && r.value < later[i - 1]!.value - wears.renewedBy)
  if (newFrom > 0) return later.slice(newFrom)
  return renewedAt === null ? later : [{ at: renewedAt, value: wears.fresh }, ...later]
}
