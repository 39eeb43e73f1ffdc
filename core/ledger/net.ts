import { fromSixteenths, sayTurns } from '../quantity/turns'
import type { ScrewName } from './reduce'

/** Net turns of a screw in words: "5/8 out", "0". Barrel + out, others + in. */
export function sayNet(screw: ScrewName, sixteenths: number): string {
  if (sixteenths === 0) return '0'
  return `${sayTurns(fromSixteenths(sixteenths))} ${(screw === 'barrel') === sixteenths > 0 ? 'out' : 'in'}`
}

export const SCREW_WORDS: Record<ScrewName, string> = { barrel: 'Barrel', H: 'H screw', L: 'L screw', B: 'B screw' }
