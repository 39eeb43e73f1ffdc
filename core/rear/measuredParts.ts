import type { PartsOfShop } from '../standards/partsOfShop'
import type { Candidate, Identified } from '../standards/identify'
import { readingOf, type Readings } from '../standards/measuring'
import { meanOf } from '../standards/entry'
import { inForceFigure, type EntryInForce } from '../standards/shopValues'
import { sprocketThicknessMm } from '../standards/tables/rear'
import { typedFromEntry, type TypedParts } from './typedParts'

type Of = 'shifter' | 'derailleur' | 'cassette'
const OF: readonly Of[] = ['shifter', 'derailleur', 'cassette']

const text = (x: number): string => String(Math.round(x * 1000) / 1000)

/**
 * What measurements give of a drivetrain, as the lines a person would type: a part's standard where it is named, its
 * numbers as measured. Pull is the cable over all clicks shared by them; pitch the stack less a thickness, shared by
 * the gaps (`practice`); ratio the two travels.
 */
export function measuredParts(
  catalogue: readonly EntryInForce[],
  found: Identified,
  readings: Readings,
): Partial<TypedParts> {
  const named = Object.fromEntries(
    OF.map(of => [of, found[of].is === 'named' ? entryOf(catalogue, of, found[of].apart[0], found) : undefined]),
  ) as Record<Of, EntryInForce | undefined>
  return {
    ...measuredShifter(named.shifter, readings),
    ...measuredDerailleur(named.derailleur, found.ratio),
    ...measuredCassette(named.cassette, readings),
  }
}

/** Parts of the same numbers go by the id that the other parts have too, so that a stock trio is one. */
function entryOf(
  catalogue: readonly EntryInForce[],
  of: Of,
  candidate: Candidate,
  found: Identified,
): EntryInForce | undefined {
  const others = OF.filter(o => o !== of && found[o].is === 'named').flatMap(o => found[o].apart[0].ids)
  const shared = (id: string) => others.filter(o => o === id).length
  const id = [...candidate.ids].sort((a, b) => shared(b) - shared(a))[0]
  return catalogue.find(e => e.kind === of && e.id === id)
}

function measuredShifter(
  named: EntryInForce | undefined,
  { clicks, cableAllMm, cableClickMm }: Readings,
): Partial<TypedParts> {
  const counted = clicks?.values[0] ?? (named ? meanOf(inForceFigure(named, 'speeds')!.value) - 1 : null)
  const pull =
    counted === null
      ? null
      : cableAllMm
        ? readingOf(cableAllMm).mean / counted
        : cableClickMm
          ? readingOf(cableClickMm).mean
          : null
  if (pull === null || counted === null) return named ? typedFromEntry(named) : {}
  return {
    shifterStandard: '',
    ...(named ? typedFromEntry(named) : {}),
    speeds: String(counted + 1),
    pullMm: text(pull),
    shifterKnown: 'measured',
  }
}

function measuredDerailleur(named: EntryInForce | undefined, ratio: Identified['ratio']): Partial<TypedParts> {
  if (!ratio) return {}
  return {
    derailleurStandard: '',
    pullRatio: text(ratio.mean),
    ...(named ? typedFromEntry(named) : {}),
    ratio: text(ratio.mean),
    derailleurKnown: 'measured',
  }
}

function measuredCassette(
  named: EntryInForce | undefined,
  { sprockets, stackMm, thicknessMm }: Readings,
): Partial<TypedParts> {
  const n = sprockets?.values[0]
  if (!stackMm || !n) return named ? typedFromEntry(named) : {}
  const thickness = thicknessMm ? readingOf(thicknessMm).mean : sprocketThicknessMm(n)
  return {
    cassetteStandard: '',
    ...(named ? typedFromEntry(named) : {}),
    pitchMm: text((readingOf(stackMm).mean - thickness) / (n - 1)),
    cassetteKnown: 'measured',
  }
}

/** Are there numbers enough to say anything of a drivetrain? */
export const givesNumbers = (lines: Partial<TypedParts>): boolean =>
  Boolean(lines.pullMm ?? lines.pullRatio ?? lines.pitchMm)

/** The lines in words: "9 clicks of 2.8 mm (r14-10), ratio 1.405". */
export function sayMeasured(u: Partial<TypedParts>): string {
  const of = (standard: string | undefined) => (standard ? ` (${standard})` : '')
  return [
    u.pullMm && `${u.speeds ? `${Number(u.speeds) - 1} clicks of ` : ''}${u.pullMm} mm${of(u.shifterStandard)}`,
    u.ratio && `ratio ${u.ratio}${of(u.derailleurStandard)}`,
    u.pitchMm && `pitch ${u.pitchMm} mm${of(u.cassetteStandard)}`,
  ]
    .filter(Boolean)
    .join(', ')
}

/** Where every part of the catalogue lies along what was measured of its kind: for the rules. */
export function placesOf(parts: PartsOfShop): Record<Of, { id: string; at: number }[]> {
  const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0)
  return {
    shifter: parts.shifters.map(p => ({ id: p.id, at: sum(p.pullMm) })),
    derailleur: parts.derailleurs.map(p => ({ id: p.id, at: meanOf(p.ratio) })),
    cassette: parts.cassettes.map(p => ({ id: p.id, at: sum(p.pitchMm) + p.thicknessMm })),
  }
}
