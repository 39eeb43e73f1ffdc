import { truthOf } from '../bench/truth'
import { degrees } from '../quantity/angle'
import { sayTurns, toEighth } from '../quantity/turns'
import { listed } from '../quantity/words'
import { CAUSES, type Cause } from '../response/causes'
import { STOP_SCREW } from '../response/parameters'
import { safeStopMm } from '../response/safe'
import { geometryOf } from '../response/setup'
import { cableWindowMm } from '../response/window'
import { QUIET_GAP_MM } from '../sound/chain'
import type { RearBike } from './rearBike'
import { OWN_EARS, type RearAct, type RearStand } from './rearStand'
import { times, upper } from './stand'

const signed = (x: number, digits = 1): string => `${x < 0 ? '−' : '+'}${Math.abs(x).toFixed(digits)}`

/** Every hidden figure of a bike as it came, in words. */
export function rearTruth({
  setup,
  hidden,
  gapMm,
}: Pick<RearBike, 'setup' | 'hidden' | 'gapMm'>): { what: string; figure: string }[] {
  const g = geometryOf(setup)
  const { from, to } = cableWindowMm(g, hidden, hidden, true)
  const offTurns = toEighth((hidden.cableMm - (from + to) / 2) / g.threadMm)
  const stop = (at: 'H' | 'L'): string => {
    const place = at === 'H' ? hidden.stopHMm : hidden.stopLMm
    const safe = safeStopMm(g, at)
    const end = at === 'H' ? 0 : g.placeMm[g.n - 1]!
    const where = `${signed(place - end)} mm`
    return place < safe.from
      ? `${where}, ${at === 'H' ? 'too far out' : 'holds the chain off the largest'}`
      : place > safe.to
        ? `${where}, ${at === 'H' ? 'holds the chain off the smallest' : 'lets it into the spokes'}`
        : `${where}, safe`
  }
  const lean = degrees(Math.atan(hidden.camberTan))
  return [
    {
      what: 'Cable',
      figure:
        offTurns === 0
          ? 'in the middle of its window'
          : `${sayTurns(Math.abs(offTurns))} turn ${offTurns > 0 ? 'too tight' : 'too slack'}`,
    },
    {
      what: 'Window with the stops well set',
      figure:
        to > from
          ? `${sayTurns(toEighth((to - from) / Math.abs(g.threadMm)))} turn wide`
          : 'none: no place of the barrel does',
    },
    { what: 'Lost to friction', figure: `${(hidden.backlashInMm + hidden.backlashOutMm).toFixed(2)} mm` },
    {
      what: 'Hanger',
      figure: Math.abs(lean) < 0.4 ? 'straight' : `${Math.abs(lean).toFixed(1)}° ${lean > 0 ? 'inboard' : 'outboard'}`,
    },
    {
      what: 'Pulley for a pull of cable',
      figure: `${signed(100 * (hidden.ratio / g.fittedRatio - 1))} % of what fits`,
    },
    { what: 'Stop H', figure: stop('H') },
    { what: 'Stop L', figure: stop('L') },
    {
      what: 'A turn of H and of L',
      figure: `${hidden.mmPerTurnH.toFixed(2)} and ${hidden.mmPerTurnL.toFixed(2)} mm, usually ${STOP_SCREW.mmPerTurn}`,
    },
    { what: 'B gap, tip to tip', figure: `${gapMm.toFixed(1)} mm${gapMm < QUIET_GAP_MM ? ', it rattled' : ''}` },
    {
      what: 'Worn sprockets',
      figure: hidden.worn.size ? `the ${listed([...hidden.worn].map(k => String(setup.teeth[k])))}` : 'none',
    },
  ]
}

/** What was wrong, in half a sentence. */
export const FAULT_SENTENCE: Record<Cause, string> = {
  tension: 'the cable was off',
  friction: 'the cable dragged',
  hanger: 'the hanger was bent',
  mismatch: 'the parts did not match',
  stops: 'a stop was wrong',
  wear: 'teeth were worn',
}
/** What is done about each, as an act. */
const CURES: Record<Cause, (act: RearAct) => boolean> = {
  tension: a => (a.do === 'turn' && a.screw === 'barrel') || a.do === 'reclamp',
  friction: a => a.do === 'replace' && a.part === 'cable',
  hanger: a => a.do === 'replace' && a.part === 'hanger',
  mismatch: a => a.do === 'replace' && (a.part === 'shifter' || a.part === 'derailleur'),
  stops: a => a.do === 'turn' && a.screw !== 'barrel',
  wear: a => a.do === 'replace' && a.part === 'cassette',
}

/** A run as it ended: won or lost, and where, said in sentences. */
export function rearVerdict(
  bike: RearBike,
  stand: RearStand,
  acts: readonly RearAct[],
): { won: boolean; because: string[] } {
  const won = stand.over && stand.right && !stand.thrown.largest && !stand.thrown.smallest && !stand.needless.length
  const because: string[] = []
  const { largest, smallest } = stand.thrown
  if (largest) because.push(`The chain went over the largest sprocket ${times(largest)}: L stood too far in.`)
  if (smallest) because.push(`The chain fell off the smallest sprocket ${times(smallest)}: H stood too far out.`)
  if (stand.needless.length) because.push(`Renewed without need: ${listed(stand.needless)}.`)
  const turned = acts.filter(CURES.tension).length
  const others = bike.faults.filter(f => f !== 'tension')
  const missed = others.filter(f => !acts.some(CURES[f]))
  if (missed.length && turned > 2)
    because.push(`The barrel was turned ${times(turned)}; ${listed(missed.map(f => FAULT_SENTENCE[f]))}.`)
  else if (missed.length) because.push(`Not put right: ${listed(missed.map(f => FAULT_SENTENCE[f]))}.`)
  if (stand.over && !stand.right) {
    const left = truthOf(stand.g, bike.setup, stand.hidden, OWN_EARS).causes
    const still = CAUSES.filter(c => left[c] && !missed.some(m => m === c))
    because.push(
      still.length
        ? `It was said to be right, and ${listed(still.map(f => FAULT_SENTENCE[f].replace('was', 'is still').replace('were', 'are still')))}.`
        : 'It was said to be right, and some gear is not clean often enough.',
    )
  }
  // no part of winning: nothing of it is a cause that the bench looks for
  if (stand.over && bike.gapMm < QUIET_GAP_MM)
    because.push(
      stand.gapMm < QUIET_GAP_MM
        ? `The pulley rattles under the largest: ${stand.gapMm.toFixed(1)} mm of gap. B in gives it room.`
        : 'The pulley rattled under the largest, and the B screw gave it room.',
    )
  if (won)
    because.push(
      bike.faults.length
        ? `${upper(listed(bike.faults.map(f => FAULT_SENTENCE[f])))}: found and put right.`
        : 'Nothing was wrong, and nothing was made wrong.',
    )
  return { won, because }
}
