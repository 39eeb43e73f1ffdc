/** How a run beds in after new cable or housing, and what to tell the rider. `practice`, no source. */

/** Barrel turns out to expect once bedded, and after which rides or weeks. */
export const SETTLE = { fromTurns: 1 / 4, toTurns: 1 / 2, rides: '1 to 3 rides', weeks: '2 to 3 weeks' } as const
/** Firm full-range shifts before hand-back that take some of it out; only after L is seen. */
export const BEDDING_SHIFTS = 30
/** Share of the settling that thirty firm shifts take out; `model`. */
const BEDDED_SHARE = 0.5

/** What is still to come, turns out; nothing when nothing was renewed. */
export function settleForecast(p: {
  renewed: boolean
  beddingShifts: number
}): { fromTurns: number; toTurns: number } | null {
  if (!p.renewed) return null
  const left = 1 - BEDDED_SHARE * Math.min(1, Math.max(0, p.beddingShifts) / BEDDING_SHIFTS)
  return { fromTurns: SETTLE.fromTurns * left, toTurns: SETTLE.toTurns * left }
}

/** What a rider of a hub gear is told. `practice` */
export const TELL_RIDER_HUB =
  'Hub gear: should it slip or find no gear, stop riding and come by; ease off the pedals as you change.'
export const TELL_RIDER =
  'Lay the bike on its other side, not on the derailleur. First sign is a delay leaving the smallest sprocket: barrel out an eighth, or come by.'

/** For a bike that leaves with this not cured. */
export const GET_HOME: Record<'hanger' | 'friction' | 'barrel', string> = {
  hanger:
    'Bent hanger: wind both stops in so that the cage cannot reach the spokes, use the middle gears, ride gently. Never when the cage touches anything.',
  friction:
    'Sticky cable: set it to favour the shifts towards the frame, and push the lever past the click towards the spokes.',
  barrel: 'No barrel left: clamp again; it takes five minutes and holds.',
}
