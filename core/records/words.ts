import { DRIVETRAIN_STANDARDS } from '../standards/drivetrains'
import { MIXED, TYPED } from './collect'

const RINGS: Record<string, string> = { 2: 'double', 3: 'triple' }

/** What a standard of the records is, in numbers and words; null for one that only the shop's catalogue knows. */
export function sayStandard(id: string): string | null {
  if (id === MIXED) return 'parts of different standards'
  if (id === TYPED) return 'parts typed in by their numbers'
  const front = /^front ([23]) (\w+)$/.exec(id)
  if (front) return `front ${RINGS[front[1]]}, ${front[2]} cage`
  const s = DRIVETRAIN_STANDARDS.find(x => x.id === id)
  return s ? `${s.speeds}-speed, ${s.pullMm} mm × ${s.listedRatio}, pitch ${s.pitchMm}` : null
}
