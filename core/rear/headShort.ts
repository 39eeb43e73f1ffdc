import { beforeAnyScrew } from '../procedure/senseCheck'
import type { Head } from './heads'
import type { RearState, Waivable } from './state'

const SHORT: Record<Waivable, string> = { parts: 'These parts cannot index', hanger: 'The hanger first' }

/** What heads a bike's benches in a few words, for a stand on the Floor. */
export const headShort = ({ id }: Head, { sensed }: RearState): string =>
  id === 'sense' ? beforeAnyScrew(sensed?.exceptions ?? [])[0]!.otherwise : SHORT[id]
