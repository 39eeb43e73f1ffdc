import type { BrakeState } from '../brake/state'
import { BRAKES, type Brake, type BrakeParts } from '../brake/kinds'
import type { HubParts } from '../hub/kinds'
import type { HubState } from '../hub/state'
import { FRONT_SCREWS } from '../front/moves'
import type { FrontParts } from '../front/parts'
import type { FrontState } from '../front/state'
import { HOUSING_PLACES } from '../rear/clamp'
import { gapNow, learntGapPerTurn } from '../rear/gap'
import { fromSixteenths } from '../quantity/turns'
import { knownBy, type RearParts } from '../ledger/parts'
import type { LedgerEvent } from '../ledger/events'
import type { JobState } from '../ledger/reduce'

/** One figure of one visit, for the shop's records. `standard` says under which numbers it is kept. */
export type RecordFigure = { standard: string; figure: string; value: number }

/** Under which standard a whole drivetrain's figures are kept when its parts are not of one trio. */
export const MIXED = 'mixed'
/** The same for parts known by typed numbers alone. */
export const TYPED = 'typed'

/** The standard a drivetrain is recorded under: its trio's, `mixed`, or `typed` when a part has none. */
export function standardOf(parts: RearParts): string {
  const ids = [parts.shifter.standard, parts.derailleur.standard, parts.cassette.standard]
  if (ids.some(id => id === null)) return TYPED
  return ids.every(id => id === ids[0]) ? ids[0]! : MIXED
}

/** A front is recorded by what its numbers share: how many rings, and how its cage swings. */
export const frontStandard = (p: FrontParts): string => `front ${p.rings.length} ${p.cage}`

export const brakeStandard = (p: BrakeParts): string => `brake ${p.kind}`
/** A hub by its row of the table, or by how it is set and its number of gears. */
export const hubStandard = (p: HubParts): string => `hub ${p.standard ?? `${p.way}-${p.ratios.length}-own`}`

/** Every standard a visit counts as a bike of: the drivetrain's, and a front that was worked on. */
export const standardsOf = (state: JobState): string[] => [
  ...(state.parts ? [standardOf(state.parts)] : []),
  ...(state.noted.front.parts && state.noted.front.log.length ? [frontStandard(state.noted.front.parts)] : []),
  // a bike counts once, however many of its brakes are of that kind
  ...new Set(
    BRAKES.flatMap(b => {
      const { parts, close } = state.noted.brakes[b]
      return parts && close ? [brakeStandard(parts)] : []
    }),
  ),
  ...(state.noted.hub.parts && (state.noted.hub.worked || state.noted.hub.readings.length > 0)
    ? [hubStandard(state.noted.hub.parts)]
    : []),
]

const mean = (values: readonly number[]): number => values.reduce((s, v) => s + v, 0) / values.length
const sum = (values: readonly number[]): number => values.reduce((s, v) => s + v, 0)

/**
 * What a visit leaves for the records: numbers measured on this bike under their own part's standard, everything set
 * under the drivetrain's. What was not measured or turned is left out, never written as 0.
 * @param comesBack whether it came back from an earlier visit with the same parts: then what the barrel took is slack found
 */
export function recordsOf(state: JobState, comesBack: boolean): RecordFigure[] {
  const out: RecordFigure[] = []
  const keep: Keep = (figure, value, under) => {
    if (value !== null && value !== undefined && Number.isFinite(value)) out.push({ standard: under, figure, value })
  }
  if (state.parts) keepRear(state, state.parts, comesBack, keep)
  keepFront(state.noted.front, keep)
  for (const brake of BRAKES) keepBrake(state.noted.brakes[brake], brake, keep)
  keepHub(state.noted.hub, keep)
  return out
}

type Keep = (figure: string, value: number | null | undefined, under: string) => void

function keepRear(state: JobState, parts: RearParts, comesBack: boolean, keepUnder: Keep): void {
  const standard = standardOf(parts)
  const keep = (figure: string, value: number | null | undefined, under = standard) => keepUnder(figure, value, under)
  if (knownBy(parts.shifter) === 'measured') {
    keep('pull', mean(parts.shifter.pullMm), parts.shifter.standard ?? TYPED)
    keep('cable', sum(parts.shifter.pullMm), parts.shifter.standard ?? TYPED)
  }
  if (knownBy(parts.derailleur) === 'measured')
    keep(
      'ratio',
      mean([parts.derailleur.ratio ?? parts.derailleur.pullRatio].flat()),
      parts.derailleur.standard ?? TYPED,
    )
  if (knownBy(parts.cassette) === 'measured')
    keep('pitch', mean(parts.cassette.pitchMm), parts.cassette.standard ?? TYPED)
  for (const h of state.noted.housing) keep(`housing ${h.place}`, h.lengthMm)
  // a run that was fitted on the cable bench leaves its pieces too, under the places the records know
  const run = state.noted.runs.find(r => r.run === 'rear')
  if (run && state.noted.cabled.rear?.includes('clamped'))
    for (const p of run.pieces) {
      const place = placeOfPiece(p.name)
      if (p.kind === 'housing' && place && !state.noted.housing.some(h => h.place === place))
        keep(`housing ${place}`, p.lengthMm)
    }
  keep('inner', state.noted.inner?.lengthMm)
  for (const screw of ['barrel', 'H', 'L', 'B'] as const)
    if (turned(state, screw)) keep(screw, fromSixteenths(state.netSixteenths[screw]))
  if (!parts.barrel.assumed || state.restarted.has('barrel')) keep('barrel-out', fromSixteenths(state.barrelSixteenths))
  for (const at of ['stand', 'sagged'] as const) {
    const seen = state.noted.gaps
      .filter(g => g.event.at === at)
      .map(g => ({ turnsIn: fromSixteenths(g.bSixteenths), gapMm: g.event.gapMm }))
    keep(
      at === 'stand' ? 'gap' : 'gap-sagged',
      gapNow(seen, fromSixteenths(state.netSixteenths.B), learntGapPerTurn(seen).mmPerTurn),
    )
  }
  keep('hanger', firstGauge(state))
  if (comesBack && !state.noted.renewed.includes('cable') && !state.restarted.has('barrel'))
    keep('slack', fromSixteenths(state.netSixteenths.barrel))
}

function keepBrake({ parts, close }: BrakeState, brake: Brake, keep: Keep): void {
  if (!parts || !close) return
  keep(`brake-barrel ${brake}`, fromSixteenths(close.barrelSixteenthsOut), brakeStandard(parts))
  keep(`brake-let-out ${brake}`, close.letOutMm, brakeStandard(parts))
}

function keepHub({ parts, readings, net }: HubState, keep: Keep): void {
  if (!parts) return
  keep(
    parts.way === 'rod' ? 'hub-rod' : parts.way === 'marks' ? 'hub-marks' : 'hub-play',
    readings.at(-1)?.mm,
    hubStandard(parts),
  )
  keep('hub-turns', net === 0 ? null : fromSixteenths(net), hubStandard(parts))
}

function keepFront({ parts, log, position, gaps, net }: FrontState, keep: Keep): void {
  if (!parts) return
  const under = frontStandard(parts)
  keep('front-height', position.heightMm, under)
  keep('front-inner', gaps.measured.inner ? gaps.innerMm : null, under)
  keep('front-outer', gaps.measured.outer ? gaps.outerMm : null, under)
  for (const screw of FRONT_SCREWS)
    keep(
      `front-${screw}`,
      log.some(e => e.kind === 'frontTurn' && e.screw === screw) ? fromSixteenths(net[screw]) : null,
      under,
    )
}

/** Under which place a run's piece is recorded, by its name; undefined where the records know none. */
export const placeOfPiece = (name: string): (typeof HOUSING_PLACES)[number] | undefined =>
  HOUSING_PLACES.find(h => h === name || (h === 'full length' && name === 'whole length'))

/** The recorded figure that an entry typed by hand would make, if any. */
export function figureOfEvent(event: LedgerEvent): { figure: string; value: number } | null {
  switch (event.kind) {
    case 'housing':
      return { figure: `housing ${event.place}`, value: event.lengthMm }
    case 'inner':
      return { figure: 'inner', value: event.lengthMm }
    case 'gap':
      return { figure: event.at === 'stand' ? 'gap' : 'gap-sagged', value: event.gapMm }
    case 'frontGap':
      return { figure: `front-${event.plate}`, value: event.gapMm }
    case 'gauge':
      return { figure: 'hanger', value: event.acrossMm }
    default:
      return null
  }
}

const turned = (state: JobState, screw: 'barrel' | 'H' | 'L' | 'B'): boolean =>
  state.inForce.some(
    ({ event }) => (event.kind === 'turn' && event.screw === screw) || (event.kind === 'edge' && screw === 'barrel'),
  )

function firstGauge(state: JobState): number | null {
  for (const { event } of state.inForce) if (event.kind === 'gauge') return event.acrossMm
  return null
}
