import { OFFCUT_WORTH, USUAL_CUT } from './cutUsual'
import type { CutPlan } from './cutList'

/**
 * What a plan wastes, and what it is the least of: ends too short to keep are unusable; "no plan uses up less" is of
 * the wall, an offcut's mm counting less than a roll's.
 */
export function sayWaste(plan: Pick<CutPlan, 'scrapMm' | 'costMm' | 'boundMm' | 'proven'>): string {
  const over = 100 * (plan.costMm / Math.max(1, plan.boundMm) - 1)
  const least = plan.proven
    ? 'No plan uses up less of the wall'
    : `At most ${over.toFixed(1)} % more of the wall is used up than the least there could be`
  return `${plan.scrapMm} mm unusable, ends under ${USUAL_CUT.leastOffcutMm} mm. ${least}; a mm of offcut counts ${OFFCUT_WORTH}. ${USUAL_CUT.kerfMm} mm for each cut and its squaring.`
}
