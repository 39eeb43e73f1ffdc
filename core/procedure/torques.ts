import type { Provenance } from '../quantity/provenance'
import { provenanceIn, rangeIn, type Standards } from '../standards/inForce'
import { tableEntry } from '../standards/catalogue'

/**
 * Bolts at the rear that are tightened to a torque, and the key each takes; figures are in the standards. `practice`
 */
export const DRIVES = {
  'hanger-bolt': '5 mm',
  'pinch-bolt': '5 or 4 mm, T25',
  'hanger-screws': '2.5 or 3 mm',
  'pulley-bolts': '3 mm',
  'lever-clamp': '4 or 5 mm',
  'axle-nuts': '15 mm',
} as const
export type TorqueId = keyof typeof DRIVES
export const TORQUE_IDS = Object.keys(DRIVES) as [TorqueId, ...TorqueId[]]
export const TORQUE_WORDS = Object.fromEntries(TORQUE_IDS.map(id => [id, tableEntry('torque', id)!.title])) as Record<
  TorqueId,
  string
>

/**
 * A bolt with its torque as it counts in this shop, N·m, and its key. None from memory on carbon, titanium or a cracked
 * part.
 */
export type Torque = { id: TorqueId; what: string; fromNm: number; toNm: number; drive: string; provenance: Provenance }

export const rearTorques = (s: Standards): Torque[] =>
  TORQUE_IDS.map(id => {
    const { from, to } = rangeIn(s, 'torque', id, 'torqueNm')
    return {
      id,
      what: TORQUE_WORDS[id],
      fromNm: from,
      toNm: to,
      drive: DRIVES[id],
      provenance: provenanceIn(s, 'torque', id, 'torqueNm'),
    }
  })

/** What a wrench's peak says of a bolt: slacker than it should be, right, or beyond what it should ever have. */
export const judgePeak = (
  { fromNm, toNm }: Pick<Torque, 'fromNm' | 'toNm'>,
  peakNm: number,
): 'under' | 'right' | 'over' => (peakNm < fromNm ? 'under' : peakNm > toNm ? 'over' : 'right')
