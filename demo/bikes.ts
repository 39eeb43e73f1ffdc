import { radians } from '#core/quantity/angle'
import type { HiddenBike } from '#core/bench/bench'
import type { RearParts } from '#core/rear/parts'
import { setupOf } from '#core/rear/parts'
import { geometryOf } from '#core/response/setup'

/** A demo bike's hidden truth: what is wrong with it, everything else as it should be. */
export type Trouble = { slackMm?: number; backlashMm?: number; camberDeg?: number; ratioOff?: number; stopLMm?: number }

export function hiddenBike(parts: RearParts, trouble: Trouble): HiddenBike {
  const g = geometryOf(setupOf(parts))
  const backlash = trouble.backlashMm ?? 0.26
  return {
    cableMm: -(trouble.slackMm ?? 0),
    ratio: g.fittedRatio * (1 + (trouble.ratioOff ?? 0)),
    backlashInMm: backlash / 2,
    backlashOutMm: backlash / 2,
    camberTan: Math.tan(radians(trouble.camberDeg ?? 0.05)),
    bowMm: 0.05,
    stopHMm: -0.6,
    stopLMm: g.placeMm[g.n - 1] + (trouble.stopLMm ?? 0.1),
    sharpness: 1.02,
    asymmetryPitch: 0,
    mmPerTurnH: 1,
    mmPerTurnL: 1.05,
    worn: new Set(),
  }
}
