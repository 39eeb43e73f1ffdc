import { BRAKE_KIND_WORDS, type BrakeKind } from '../brake/kinds'
import { USUAL_HUBS } from '../hub/kinds'
import { DRIVETRAIN_STANDARDS } from '../standards/drivetrains'
import { MIXED, TYPED } from './collect'

const RINGS: Record<string, string> = { 2: 'double', 3: 'triple' }

/** What a standard of the records is, in numbers and words; null for one that only the shop's catalogue knows. */
export function sayStandard(id: string): string | null {
  if (id === MIXED) return 'parts of different standards'
  if (id === TYPED) return 'parts typed in by their numbers'
  const front = /^front ([23]) (\w+)$/.exec(id)
  if (front) return `${RINGS[front[1]]}, ${front[2]} cage`
  const brake = /^brake (.+)$/.exec(id)
  if (brake) return BRAKE_KIND_WORDS[brake[1] as BrakeKind]?.toLowerCase() ?? null
  const hub = /^hub (.+)$/.exec(id)
  if (hub)
    return USUAL_HUBS.find(h => h.id === hub[1])?.title ?? `hub gear by its own ratios, ${hub[1].replace('-own', '')}`
  const s = DRIVETRAIN_STANDARDS.find(x => x.id === id)
  return s ? `${s.speeds}-speed, ${s.pullMm} mm × ${s.listedRatio}, pitch ${s.pitchMm}` : null
}
