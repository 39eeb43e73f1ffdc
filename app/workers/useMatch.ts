import { wrap, type Remote } from 'comlink'
import type { CassettePart, DerailleurPart, PartsOfShop, ShifterPart } from '#core/standards/partsOfShop'
import type { OwnFigure } from '#core/standards/inForce'
import { useLatest } from './latest'
import type { MatchApi } from './match'

type Whole = {
  shifter: ShifterPart
  derailleur: DerailleurPart
  cassette: CassettePart
  parts: PartsOfShop
  own: readonly OwnFigure[]
}

/** The matrix of the chosen derailleur and what would fix the chosen trio, worked out beside the page. */
export function useMatch(
  matrixOf: Ref<{ derailleur: DerailleurPart; parts: PartsOfShop } | null>,
  fixesOf: Ref<Whole | null>,
) {
  let worker: Worker | undefined
  let api: Remote<MatchApi> | undefined
  const theApi = (): Remote<MatchApi> => {
    worker ??= new Worker(new URL('./match.ts', import.meta.url), { type: 'module' })
    return (api ??= wrap<MatchApi>(worker))
  }
  onScopeDispose(() => worker?.terminate())
  const { answer: matrix } = useLatest(matrixOf, async ({ derailleur, parts }) => {
    const { cells, tookMs } = await theApi().matrix(derailleur, parts)
    performance.measure('matrix', { start: performance.now() - tookMs }) // read by bench/page.ts
    return cells
  })
  const { answer: fixes } = useLatest(fixesOf, now =>
    theApi().fixes(now.shifter, now.derailleur, now.cassette, now.parts, now.own),
  )
  return { matrix, fixes }
}
