import type { Provenance } from '../quantity/provenance'

/** Tightening torques at the rear, N·m, unless the maker says otherwise; none from memory on carbon, titanium or a cracked part. */
export const TORQUE_IDS = [
  'hanger-bolt',
  'pinch-bolt',
  'hanger-screws',
  'pulley-bolts',
  'lever-clamp',
  'axle-nuts',
] as const
export type TorqueId = (typeof TORQUE_IDS)[number]
export type Torque = { id: TorqueId; what: string; fromNm: number; toNm: number; provenance: Provenance; drive: string }

export const REAR_TORQUES: readonly Torque[] = [
  { id: 'hanger-bolt', what: 'Hanger bolt', fromNm: 8, toNm: 10, provenance: 'memory', drive: '5 mm' },
  { id: 'pinch-bolt', what: 'Pinch bolt', fromNm: 4, toNm: 7, provenance: 'memory', drive: '5 or 4 mm, T25' },
  { id: 'hanger-screws', what: 'Hanger screws', fromNm: 2, toNm: 5, provenance: 'memory', drive: '2.5 or 3 mm' },
  { id: 'pulley-bolts', what: 'Pulley bolts', fromNm: 2.5, toNm: 3, provenance: 'memory', drive: '3 mm' },
  { id: 'lever-clamp', what: 'Lever clamp', fromNm: 5, toNm: 6, provenance: 'memory', drive: '4 or 5 mm' },
  { id: 'axle-nuts', what: 'Solid axle nuts', fromNm: 30, toNm: 45, provenance: 'memory', drive: '15 mm' },
]
