import { wrap, type Remote } from 'comlink'
import { USUAL_CUT, type CutPlan, type StockItem, type ToCut } from '#core/cable/cutList'
import type { LoopGeometry } from '#core/cable/loop'
import type { CablesApi, LoopPicture } from './cables'

export type CutAnswer = { is: 'thinking' } | { is: 'ready'; plan: CutPlan } | { is: 'failed'; message: string }
export type LoopAnswer = { is: 'thinking'; picture: LoopPicture | null } | { is: 'ready'; picture: LoopPicture } | { is: 'failed'; message: string }

/** Shapes worked out to either side of straight ahead: turning the bars only picks and blends them. */
export const LOOP_FRAMES = 12

/** The cable bench's heavy sums, beside the page. */
export function useCables() {
  let worker: Worker | undefined
  let api: Remote<CablesApi> | undefined
  const theApi = (): Remote<CablesApi> => {
    worker ??= new Worker(new URL('./cables.ts', import.meta.url), { type: 'module' })
    return (api ??= wrap<CablesApi>(worker))
  }
  onScopeDispose(() => worker?.terminate())
  // reactive proxies do not cross into a worker
  const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

  async function cut(pieces: ToCut[], stock: StockItem[]): Promise<CutAnswer> {
    try {
      return { is: 'ready', plan: (await theApi().cut(...plain([pieces, stock, USUAL_CUT] as const))).plan }
    } catch (error) {
      return { is: 'failed', message: (error as Error).message }
    }
  }

  /** The loop of a geometry as it changes; a late answer is dropped, the old picture stays until the new one is there. */
  function useLoop(asked: Ref<{ geometry: LoopGeometry; givenMm: number | null } | null>) {
    const answer = shallowRef<LoopAnswer>({ is: 'thinking', picture: null })
    let last = 0
    watch(asked, async now => {
      const mine = ++last
      if (!now) return
      answer.value = { is: 'thinking', picture: answer.value.is === 'failed' ? null : answer.value.picture }
      try {
        const picture = await theApi().loop(...plain([now.geometry, now.givenMm, LOOP_FRAMES] as const))
        performance.measure('loop', { start: performance.now() - picture.tookMs })
        if (mine === last) answer.value = { is: 'ready', picture }
      } catch (error) {
        if (mine === last) answer.value = { is: 'failed', message: (error as Error).message }
      }
    }, { immediate: true })
    return readonly(answer) as Readonly<Ref<LoopAnswer>>
  }
  return { cut, useLoop }
}
