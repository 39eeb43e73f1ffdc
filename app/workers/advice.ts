import { expose } from 'comlink'
import { consider } from '#core/advice/advise'
import type { BenchEvent, RearSetup } from '#core/advice/contract'
import type { KnownPrior } from '#core/advice/prior'
import { pictureOf, type Picture } from '#core/advice/picture'

const api = {
  /** The whole belief about a bike, ready to be drawn. */
  picture(setup: RearSetup, log: BenchEvent[], prior: KnownPrior | undefined): Picture {
    return pictureOf(consider(setup, log, { prior }))
  },
}
export type AdviceApi = typeof api
expose(api)
