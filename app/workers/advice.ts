import type { RearSetup } from '#core/response/setup'
import type { BenchEvent } from '#core/rear/benchEvents'
import { expose } from 'comlink'
import { consider } from '#core/advice/advise'
import type { KnownPrior } from '#core/advice/prior'
import { pictureOf, type Picture } from '#core/advice/picture'

const api = {
  /** The whole belief about a bike, ready to be drawn. */
  picture(setup: RearSetup, log: readonly BenchEvent[], prior: KnownPrior | undefined): Picture {
    return pictureOf(consider(setup, log, { prior }))
  },
}
export type AdviceApi = typeof api
expose(api)
