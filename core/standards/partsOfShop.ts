import { meanOf, spreadOver } from './entry'
import { inForceFigure, nameOf, type EntryInForce } from './shopValues'
import { chainRow } from './tables/chains'
import { sprocketThicknessMm } from './tables/rear'

/** Parts as the explorer needs them: numbers and a name. Plain data, so that it crosses into a worker. */
export type ShifterPart = { id: string; name: string; pullMm: number[] }
export type DerailleurPart = { id: string; name: string; ratio: number | number[] }
export type CassettePart = { id: string; name: string; pitchMm: number[]; thicknessMm: number; chainMm: number }
export type PartsOfShop = { shifters: ShifterPart[]; derailleurs: DerailleurPart[]; cassettes: CassettePart[] }

/**
 * A cassette of the shop's own may not have had its thickness measured: then that of its number of sprockets counts.
 */
const thickness = (e: EntryInForce): number => {
  const own = inForceFigure(e, 'thicknessMm')
  return own ? meanOf(own.value) : sprocketThicknessMm(meanOf(inForceFigure(e, 'speeds')!.value))
}

/** The rear parts of a catalogue, lists spread over their clicks and gaps. */
export function partsOf(catalogue: readonly EntryInForce[]): PartsOfShop {
  const of = (kind: EntryInForce['kind']) => catalogue.filter(e => e.kind === kind)
  const along = (e: EntryInForce, key: string) =>
    spreadOver(inForceFigure(e, key)!.value, meanOf(inForceFigure(e, 'speeds')!.value) - 1)
  /** Outer width of the chain that goes with so many sprockets, mm. */
  const chainMm = (speeds: number) =>
    meanOf(
      inForceFigure(
        catalogue.find(e => e.kind === 'chain' && e.id === chainRow(speeds))!,
        'outerMm',
      )!.value,
    )
  return {
    shifters: of('shifter').map(e => ({ id: e.id, name: nameOf(e), pullMm: along(e, 'pullMm') })),
    derailleurs: of('derailleur').map(e => ({ id: e.id, name: nameOf(e), ratio: inForceFigure(e, 'ratio')!.value })),
    cassettes: of('cassette').map(e => ({
      id: e.id,
      name: nameOf(e),
      pitchMm: along(e, 'pitchMm'),
      thicknessMm: thickness(e),
      chainMm: chainMm(meanOf(inForceFigure(e, 'speeds')!.value)),
    })),
  }
}
