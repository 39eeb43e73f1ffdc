import { beforeAnyScrew } from '../procedure/senseCheck'
import { TABLE_ONLY, type Standards } from '../standards/inForce'
import { HANGER_LOOK_WORDS } from './hangerEye'
import { acrossTolerance } from './hangerLimit'
import type { RearState, Waivable } from './state'
import { matchOfParts } from './typedParts'

/** What comes before all else on this bike: said on top of every bench until it is cured, or waived by name. */
export type Head = {
  id: 'sense' | Waivable
  words: string
  /** Where it is cured. */
  at: 'sense' | 'hanger' | 'parts'
  /** May it be worked on as it is, by a mechanic's name? */
  waive: Waivable | null
}

/**
 * The first thing that stands in the way of any screw: what the sense check found, parts that no setting of the barrel
 * makes clean, a hanger out of tolerance. Asked by every bench alike. Null when nothing does.
 */
export function headOfRear(rear: RearState, s: Standards = TABLE_ONLY): Head | null {
  const [found] = beforeAnyScrew(rear.sensed?.exceptions ?? [])
  if (found)
    return { id: 'sense', words: `Before any screw. ${found.otherwise}: ${found.does}`, at: 'sense', waive: null }
  const { parts } = rear
  if (!parts) return null
  if (!parts.shifter.friction && !rear.waived.has('parts')) {
    const match = matchOfParts(parts)
    if (match.verdict === 'will-not-index') return { id: 'parts', words: match.words, at: 'parts', waive: 'parts' }
  }
  const bent = hangerBent(rear, s)
  return bent && !rear.waived.has('hanger') ? { id: 'hanger', words: bent, at: 'hanger', waive: 'hanger' } : null
}

/** How the hanger is out of line by what was last read or seen of it; null where it is not, or nobody looked. */
function hangerBent(rear: RearState, s: Standards): string | null {
  const { eyed } = rear
  if (eyed !== null)
    return eyed === 'straight' ? null : `The hanger, by eye: ${HANGER_LOOK_WORDS[eyed].toLowerCase()}. Gauge it first.`
  const last = rear.gauges.at(-1)
  if (!last || !rear.parts) return null
  if (last.bentBefore) return 'The hanger was levered: gauge it again first.'
  const limit = acrossTolerance(rear.parts.cassette.teeth.length, s)
  const { acrossMm } = last.event
  return acrossMm > limit
    ? `The hanger is ${acrossMm.toFixed(1)} mm out across the wheel, ${limit} mm is the limit: true it before any screw.`
    : null
}
