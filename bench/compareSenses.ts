import { scoreCoasting, scoreEdges, scoreHearing, scoreShifts } from '#core/bench/hearingScore'
import { scoreLead } from '#core/bench/leadScore'
import {
  scoreBehind,
  scoreRod,
  scoreSide,
  scoreUnfit,
  UNFIT,
  SIGHT_KINDS,
  type SightKind,
  type SightScore,
} from '#core/bench/sightScore'
import { percent } from './figures'

const row = (s: SightScore) => ({
  kind: s.kind,
  pictures: s.pictures,
  refused: s.refused,
  'rms mm': s.rmsMm.toFixed(2),
  '95 % within mm': s.within95Mm.toFixed(2),
  'stated sd': s.statedSdMm.toFixed(2),
  'in 68 %': percent(s.share68 * 100, 100),
  'in 95 %': percent(s.share95 * 100, 100),
  'lean rms °': s.leanRmsDeg?.toFixed(2) ?? '',
  'touches a picture': s.touches.toFixed(1),
})

/** Measuring in pictures, on rendered bikes: npm run compare -- sight [bikes] [first seed]. Docs: docs/senses.md. */
export function compareSight(bikes: number, first: number): void {
  const kinds = Object.keys(SIGHT_KINDS) as SightKind[]
  const uncounted = [kinds[0]!, kinds[1]!].map(kind => row(scoreBehind(kind, bikes, first, false)))
  const beside = scoreSide(bikes, first)
  console.table([
    ...kinds.map(kind => row(scoreBehind(kind, bikes, first))),
    ...uncounted,
    row(beside.found),
    row(beside.touched),
    row(scoreRod(10 * bikes, first)),
  ])
  console.table([scoreLead(Math.ceil((2 * bikes) / 3), first)])
  console.table(
    UNFIT.map(kind => ({ 'unfit picture': kind, refused: percent(scoreUnfit(kind, bikes, first) * 100, 100) })),
  )
}

/** Hearing, on made sounds in a workshop: npm run compare -- hearing [sounds] [first seed]. */
export function compareHearing(sounds: number, first: number): void {
  console.table([scoreHearing(sounds, first)])
  console.table([scoreEdges(Math.ceil(sounds / 5), first)])
  console.table([scoreShifts(3 * sounds, first)])
  console.table(scoreCoasting(sounds, first))
}
