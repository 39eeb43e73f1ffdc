import type { END_GAPS, HEIGHTS } from '../procedure/schools'
import type { FrontMoveTo } from './contract'
import type { FrontSight } from './events'

type School = { name: string; targetMm: { from: number; to: number } }
type Schools = { height: (typeof HEIGHTS)[number]; endGap: (typeof END_GAPS)[number] }
const middleOf = ({ targetMm: { from, to } }: School): number => (from + to) / 2

/**
 * What is asked and looks right at a glance: one touch, the middle of what the schools of height and gaps want, said to
 * be by eye; null where the move asks for more than a glance.
 * @param neitherStop neither stop was seen by itself yet: both may be told at once
 */
export function atAGlance(
  move: FrontMoveTo,
  { height, endGap }: Schools,
  neitherStop: boolean,
): { words: string; entries: FrontSight[] } | null {
  if (move.do === 'position')
    return {
      words: `Both right: ${height.name.toLowerCase()}, in line`,
      entries: [{ kind: 'frontPosition', heightMm: middleOf(height), angleDeg: 0, byEye: true }],
    }
  if (move.do !== 'gap' || !move.byStop || !neitherStop) return null
  return {
    words: `Both stops right: ${endGap.name.toLowerCase()}, seen slack and drawn`,
    entries: (['inner', 'outer'] as const).map(plate => ({
      kind: 'frontGap',
      plate,
      gapMm: middleOf(endGap),
      byStop: true,
      byEye: true,
    })),
  }
}

/**
 * What the next move itself answers in one touch: turned as said, set as said, there and back all clean; null where it
 * asks for a figure or a choice.
 */
export function ownAnswer(move: FrontMoveTo, judgedOn: (ring: number) => number): FrontSight[] | null {
  if (move.do === 'turn') return [{ kind: 'frontTurn', screw: move.screw, sixteenths: move.sixteenths }]
  if (move.do === 'set') return [{ kind: 'frontSet', what: move.what }]
  if (move.do !== 'shift' || !move.back) return null
  const clean = (from: number, to: number): FrontSight => ({
    kind: 'frontShift',
    from,
    to,
    sprocket: judgedOn(to),
    seen: 'clean',
  })
  const round = [clean(move.from, move.to), clean(move.to, move.from)]
  return Array.from({ length: move.times ?? 1 }, () => round).flat()
}
