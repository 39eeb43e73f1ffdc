import { expose } from 'comlink'
import { fixesFor } from '#core/standards/fixes'
import { matrixOf, type Cell, type DerailleurPart, type PartsOfShop } from '#core/standards/trio'

const api = {
  /** The whole matrix for a derailleur, and how long it took here. */
  matrix(derailleur: DerailleurPart, parts: PartsOfShop): { cells: Cell[][]; tookMs: number } {
    const start = performance.now()
    const cells = matrixOf(derailleur, parts)
    return { cells, tookMs: performance.now() - start }
  },
  /** What would fix a trio, from the whole catalogue. */
  fixes: fixesFor,
}
export type MatchApi = typeof api
expose(api)
