import { expose } from 'comlink'
import { standInCoast, standInSound } from '#core/bench/standInMicrophone'
import { envelopeOf } from '#core/hearing/bands'
import { coastOf } from '#core/hearing/coasting'
import { pairIn } from '#core/hearing/knocking'
import { listenTo, type Listened, type NotHeard, type Turning } from '#core/hearing/listen'
import { edgesOf, type HeardAt, type Wound } from '#core/hearing/wound'

const api = {
  listen(samples: Float32Array, rateHz: number, turning: Turning): { heard: Listened | NotHeard; tookMs: number } {
    const start = performance.now()
    const heard = listenTo({ samples, rateHz }, turning)
    return { heard, tookMs: performance.now() - start }
  },
  edges: (heard: readonly HeardAt[]): Wound => edgesOf(heard),
  /** When two knocks were heard, s from the start of what was recorded; null for none. */
  knocks: (samples: Float32Array, rateHz: number) => pairIn(envelopeOf({ samples, rateHz }, 'rattle')),
  coast: (samples: Float32Array, rateHz: number) => coastOf({ samples, rateHz }),
  standInCoast,
  standIn: (turning: Turning, at: Pick<HeardAt, 'eighths' | 'way'>) => standInSound(turning, at),
}
export type HearingApi = typeof api
expose(api)
