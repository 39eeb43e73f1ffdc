import type { CassettePart, DerailleurPart, PartsOfShop, ShifterPart } from '#core/standards/partsOfShop'
import { standardsWith, type OwnFigure } from '#core/standards/inForce'
import { expose } from 'comlink'
import { fixesFor, type Fix } from '#core/rear/fixes'
import { matrixOf, type Cell } from '#core/rear/trio'

const api = {
  /** The whole matrix for a derailleur, and how long it took here. */
  matrix(derailleur: DerailleurPart, parts: PartsOfShop): { cells: Cell[][]; tookMs: number } {
    const start = performance.now()
    const cells = matrixOf(derailleur, parts)
    return { cells, tookMs: performance.now() - start }
  },
  /** What would fix a trio, from the whole catalogue, by the figures that count in this shop. */
  fixes: (
    shifter: ShifterPart,
    derailleur: DerailleurPart,
    cassette: CassettePart,
    parts: PartsOfShop,
    own: readonly OwnFigure[],
  ): Fix[] => fixesFor(shifter, derailleur, cassette, parts, standardsWith(own)),
}
export type MatchApi = typeof api
expose(api)
