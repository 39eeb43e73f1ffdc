/**
 * How the hiss lies where a chain rubs and where it does not, dB beside the links' click: middles and spreads, over
 * bikes, rooms and hands. `model`, from made sounds (docs/hearing.md).
 */
export const RUB_DB = { clean: { mean: -30, sd: 7 }, rub: { mean: -6, sd: 5 } } as const
/** No sound is proof: odds stop here. */
const MOST_ODDS = 30

/** Odds of a rub, of how loud its hiss is. */
export function rubOddsOf(rubDb: number): number {
  const of = ({ mean, sd }: { mean: number; sd: number }, at: number) => Math.exp(-0.5 * ((at - mean) / sd) ** 2) / sd
  // past either middle a sound is no less like its kind
  const dB = Math.max(RUB_DB.clean.mean, Math.min(RUB_DB.rub.mean, rubDb))
  const odds = of(RUB_DB.rub, dB) / of(RUB_DB.clean, dB)
  return Math.max(1 / MOST_ODDS, Math.min(MOST_ODDS, odds))
}
