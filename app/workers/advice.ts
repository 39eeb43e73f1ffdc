import type { RearSetup } from '#core/response/setup'
import type { BenchEvent } from '#core/rear/benchEvents'
import { expose } from 'comlink'
import { consider, type AdviseOptions } from '#core/advice/advise'
import { prepareTables } from '#core/advice/hearingTable'
import { pictureOf, type Picture } from '#core/advice/picture'

const api = {
  /** The whole belief about a bike, ready to be drawn. */
  picture(setup: RearSetup, log: readonly BenchEvent[], options: AdviseOptions): Picture {
    return pictureOf(consider(setup, log, options))
  },
}
export type AdviceApi = typeof api
expose(api)
// while the log is still on its way
prepareTables()
