import type { Housing } from '#core/cable/housing'
import type { ShopClaim } from '#core/standards/shopValues'

/** What the demo's people measured on the bench and how they call things: invented. */
export const DEMO_VALUES: readonly (ShopClaim & { by: string })[] = [
  { kind: 'shifter', entry: 'r14-10', figure: 'nickname', value: 'Sandpiper ten', note: '', by: 'Ishbel' },
  { kind: 'derailleur', entry: 'r14-10', figure: 'nickname', value: 'Sandpiper ten', note: '', by: 'Ishbel' },
  { kind: 'shifter', entry: 'r11-9', figure: 'nickname', value: 'Bollard nine', note: '', by: 'Moss' },
  { kind: 'shifter', entry: 'r11-9', figure: 'pullMm', value: 3.95, note: 'caliper, three parcel bikes', by: 'Moss' },
  { kind: 'shifter', entry: 'r11-9', figure: 'pullMm', value: 3.97, note: 'again, over all clicks', by: 'Ishbel' },
  { kind: 'cassette', entry: 'r17-9', figure: 'pitchMm', value: 4.34, note: 'stack of a new one', by: 'Tarn' },
  { kind: 'shifter', entry: 'own-oxbow-eight', figure: 'speeds', value: 8, note: '', by: 'Ishbel' },
  {
    kind: 'shifter',
    entry: 'own-oxbow-eight',
    figure: 'pullMm',
    value: [3.1, 2.9, 2.8, 2.8, 2.8, 2.8, 2.9],
    note: 'uneven: long first click',
    by: 'Ishbel',
  },
]

/** What hangs on the demo's wall. */
export const DEMO_STOCK: readonly { kind: Housing; lengthMm: number; roll: boolean; label: string }[] = [
  { kind: 'shift 4 mm', lengthMm: 18_400, roll: true, label: 'black' },
  { kind: 'shift 4 mm', lengthMm: 640, roll: false, label: '' },
  { kind: 'shift 4 mm', lengthMm: 415, roll: false, label: '' },
  { kind: 'shift 4 mm', lengthMm: 296, roll: false, label: '' },
  { kind: 'brake 5 mm', lengthMm: 22_100, roll: true, label: 'black' },
  { kind: 'brake 5 mm', lengthMm: 870, roll: false, label: '' },
  { kind: 'compressionless, rated for brakes', lengthMm: 7_900, roll: true, label: '' },
]
