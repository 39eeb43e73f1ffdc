import type { RearSetup } from '#core/response/setup'
import type { BenchEvent } from '#core/rear/benchEvents'
import { expose } from 'comlink'
import { consider, type AdviseOptions } from '#core/advice/advise'
import { pictureOf, type Picture } from '#core/advice/picture'
import { rehearse } from '#core/advice/rehearse'

let asked = false

const api = {
  /** The whole belief about a bike, ready to be drawn. */
  picture(setup: RearSetup, log: readonly BenchEvent[], options: AdviseOptions): Picture {
    asked = true
    return pictureOf(consider(setup, log, options))
  },
}
export type AdviceApi = typeof api
expose(api)

// while the log is still on its way; a question that comes meanwhile is taken up between two steps
const unlessAsked = () =>
  new Promise<void>((goOn, end) => setTimeout(() => (asked ? end(new Error('asked meanwhile')) : goOn())))
rehearse(unlessAsked).catch((reason: unknown) => {
  if (!asked) throw reason
})
