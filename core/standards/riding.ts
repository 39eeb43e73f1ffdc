/** How much a bike is ridden, as its rider says it. A new run beds in by its rides, not by the calendar. */
export const RIDINGS = ['daily', 'weekly', 'seldom'] as const
export type Riding = (typeof RIDINGS)[number]
export const RIDING_WORDS: Record<Riding, string> = {
  daily: 'every day',
  weekly: 'once or twice a week',
  seldom: 'less than that',
}
