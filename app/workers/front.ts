import { expose } from 'comlink'
import { adviseFront, type FrontAdvice } from '#core/front/advise'
import type { FrontSight } from '#core/front/events'
import type { FrontSetup } from '#core/front/setup'

export type FrontQuestion = { setup: FrontSetup; log: readonly FrontSight[] }

const api = {
  /** The belief about a front, what to do next, and how long it took here. @throws RangeError naming what makes no sense */
  advise({ setup, log }: FrontQuestion): { advice: FrontAdvice; tookMs: number } {
    const start = performance.now()
    const advice = adviseFront(setup, log)
    return { advice, tookMs: performance.now() - start }
  },
}
export type FrontApi = typeof api
expose(api)
