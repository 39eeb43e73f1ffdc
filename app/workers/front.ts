import { expose } from 'comlink'
import { adviseFront } from '#core/front/advise'
import type { FrontAdvice, FrontWishes } from '#core/front/contract'
import type { FrontSight } from '#core/front/events'
import type { FrontSetup } from '#core/front/setup'

export type FrontQuestion = { setup: FrontSetup; log: readonly FrontSight[]; wishes: FrontWishes }

const api = {
  /**
   * The belief about a front, what to do next, and how long it took here. @throws RangeError naming what makes no sense
   */
  advise({ setup, log, wishes }: FrontQuestion): { advice: FrontAdvice; tookMs: number } {
    const start = performance.now()
    const advice = adviseFront(setup, log, wishes)
    return { advice, tookMs: performance.now() - start }
  },
}
export type FrontApi = typeof api
expose(api)
