import { wrap, type Remote } from 'comlink'
import type { CutPlan, StockItem, ToCut } from '#core/cable/cutList'
import { USUAL_CUT } from '#core/cable/cutUsual'
import type { LoopGeometry } from '#core/cable/loop'
import type { CablesApi } from './cables'
import { plain, useLatest } from './latest'

export type CutAnswer = { is: 'thinking' } | { is: 'ready'; plan: CutPlan } | { is: 'failed'; message: string }

/** Shapes worked out from one end of a loop's turn to the other: turning only picks and blends them. */
export const LOOP_FRAMES = 25

/** The cable bench's heavy sums, beside the page. */
export function useCables() {
  let worker: Worker | undefined
  let api: Remote<CablesApi> | undefined
  const theApi = (): Remote<CablesApi> => {
    worker ??= new Worker(new URL('./cables.ts', import.meta.url), { type: 'module' })
    return (api ??= wrap<CablesApi>(worker))
  }
  onScopeDispose(() => worker?.terminate())
  async function cut(pieces: ToCut[], stock: StockItem[]): Promise<CutAnswer> {
    try {
      const { plan, tookMs } = await theApi().cut(...plain([pieces, stock, USUAL_CUT] as const))
      performance.measure('cut', { start: performance.now() - tookMs }) // read by bench/page.ts
      return { is: 'ready', plan }
    } catch (error) {
      return { is: 'failed', message: (error as Error).message }
    }
  }

  /** The loop of a geometry as it changes. */
  const useLoop = (asked: Ref<{ geometry: LoopGeometry; givenMm: number | null } | null>) =>
    useLatest(asked, async now => {
      const picture = await theApi().loop(now.geometry, now.givenMm, LOOP_FRAMES)
      performance.measure('loop', { start: performance.now() - picture.tookMs }) // read by bench/page.ts
      return picture
    }).answer
  return { cut, useLoop }
}
