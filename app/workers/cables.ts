import { expose } from 'comlink'
import { cutPlan, type CutPlan, type StockItem, type ToCut } from '#core/cable/cutList'
import type { CutOptions } from '#core/cable/cutUsual'
import { judgeLoop, loopAt, loopLengthMm, type LoopAt, type LoopGeometry, type LoopJudged } from '#core/cable/loop'

/**
 * A loop as the bench draws it: its length, what it does in every pose, and its shapes from one end of its turn to the
 * other.
 */
export type LoopPicture = { lengthMm: number; judged: LoopJudged; frames: (LoopAt | null)[]; tookMs: number }

const api = {
  /** A cut list and how long it took here. */
  cut(pieces: ToCut[], stock: StockItem[], options: CutOptions): { plan: CutPlan; tookMs: number } {
    const start = performance.now()
    const plan = cutPlan(pieces, stock, options)
    return { plan, tookMs: performance.now() - start }
  },
  /**
   * The loop of the length given, or of the shortest that does; `count` shapes evenly from one end of its turn to the
   * other. @throws RangeError when there is none
   */
  loop(geometry: LoopGeometry, givenMm: number | null, count: number): LoopPicture {
    const start = performance.now()
    const lengthMm = givenMm ?? loopLengthMm(geometry)
    const degs = geometry.poses.map(p => p.deg)
    const [from, to] = [Math.min(...degs), Math.max(...degs)]
    const frames = Array.from({ length: count }, (_, i) =>
      loopAt(geometry, lengthMm, from + ((to - from) * i) / (count - 1)),
    )
    return { lengthMm, judged: judgeLoop(geometry, lengthMm), frames, tookMs: performance.now() - start }
  },
}
export type CablesApi = typeof api
expose(api)
