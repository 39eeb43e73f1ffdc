import type { Provenance } from '../../quantity/provenance'
import type { Entry } from '../entry'

const torque = (id: string, title: string, from: number, to: number, provenance: Provenance = 'memory'): Entry => ({
  kind: 'torque',
  id,
  title,
  figures: [{ key: 'torqueNm', value: [from, to], provenance, source: 'unless the maker says otherwise' }],
})

/** Torques, N·m, unless the maker says otherwise; none of them on carbon, titanium or a cracked part. */
export const TORQUE_ENTRIES: readonly Entry[] = [
  torque('hanger-bolt', 'Hanger bolt', 8, 10),
  torque('pinch-bolt', 'Pinch bolt', 4, 7),
  torque('hanger-screws', 'Hanger screws', 2, 5),
  torque('pulley-bolts', 'Pulley bolts', 2.5, 3),
  torque('lever-clamp', 'Lever clamp', 5, 6),
  torque('axle-nuts', 'Solid axle nuts', 30, 45),
  torque('front-pinch', 'Front pinch bolt', 5, 7),
  torque('front-clamp', 'Front derailleur clamp', 5, 7),
  torque('linear-anchor', 'Linear-pull cable anchor', 6, 8),
  torque('brake-arm', 'Brake arm', 5, 9),
  torque('brake-pad', 'Brake pad', 5, 7),
  torque('disc-mount', 'Disc calliper bolts', 6, 8),
  torque('calliper-mount', 'Calliper mount', 7, 8, 'practice'),
  torque('universal-hanger', 'Universal hanger, left-hand', 25, 25),
  torque('twin-grub', 'Twin-cable grub screw', 1.5, 1.5, 'practice'),
  torque('twin-stop', 'Twin-cable stop screw', 3, 3, 'practice'),
]
