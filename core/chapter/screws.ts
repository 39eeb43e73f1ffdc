import { fromSixteenths, sayTurns } from '../quantity/turns'

/** Screws of a derailleur whose turns are counted. */
export const SCREWS = ['barrel', 'H', 'L', 'B'] as const
export type ScrewName = (typeof SCREWS)[number]
export const SCREW_WORDS: Record<ScrewName, string> = {
  barrel: 'Barrel',
  H: 'H screw',
  L: 'L screw',
  B: 'B screw',
}

/** The two ways a screw turns, as its head is seen. */
export const WAY_WORDS = { in: 'In, clockwise', out: 'Out, anticlockwise' } as const

/** Which way a count in sixteenths goes: a barrel counts + out, other screws + in. */
export const wayOf = (screw: ScrewName, sixteenths: number): 'in' | 'out' =>
  (screw === 'barrel') === sixteenths > 0 ? 'out' : 'in'

/** Sixteenths of a turn that way, as the ledger counts them. */
export const counted = (screw: ScrewName, way: 'in' | 'out', sixteenths: number): number =>
  (screw === 'barrel') === (way === 'out') ? sixteenths : -sixteenths

/** Net turns of a screw in words: "5/8 out", "0". */
export const sayNet = (screw: ScrewName, sixteenths: number): string =>
  sixteenths === 0 ? '0' : `${sayTurns(fromSixteenths(sixteenths))} ${wayOf(screw, sixteenths)}`
