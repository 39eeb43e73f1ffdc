import { GAUGE_RADIUS_MM } from '#core/rear/gaugeRadius'
import { randomFrom } from '#core/quantity/random'
import type { LedgerEvent } from '#core/ledger/events'
import type { FrameKind } from '#core/standards/frames'

/**
 * Two years of the workshop before today: the same bikes come back, each visit in a few entries. Invented, from a fixed
 * seed, so that every view has something true to show; figures scatter about what is usual for each kind of frame.
 */
type PastVisit = {
  customer: string
  contact: string
  bike: string
  frameNumber: string
  frame: FrameKind
  standard: string
  complaint: string
  by: string
  daysAgo: number
  events: readonly LedgerEvent[]
  comesBack: boolean
}

type PastBike = {
  customer: string
  bike: string
  frameNumber: string
  frame: FrameKind
  standard: string
  visits: readonly number[]
}
const HARBOUR = 'Harbour Parcel Round'
const bike = (
  customer: string,
  name: string,
  frameNumber: string,
  frame: FrameKind,
  standard: string,
  ...visits: number[]
): PastBike => ({ customer, bike: name, frameNumber, frame, standard, visits })

const PAST_BIKES: readonly PastBike[] = [
  bike('Ossian Quayle', 'Petrel ferry commuter', 'PT-19002', 'open', 'r14-10', 712, 690, 341, 33),
  bike('Ingrid Saltmarsh', 'Petrel island commuter 2', 'PT-20418', 'open', 'r14-10', 655, 402, 120),
  bike('Teo Brandreth', 'Marram quay', 'MR-7002', 'internal', 'r14-10', 601, 580, 210),
  bike('Una Corrigan-Vale', 'Marram slip', 'MR-7017', 'internal', 'r14-10', 544, 98),
  bike('Piers Holloway', 'Gannet day tourer', 'GT-1031', 'open', 'r14-10', 498, 477, 61),
  bike('Sorrel Finch-Maddox', 'Petrel lane', 'PT-22110', 'open', 'r14-10', 366, 14),
  bike('Hale Dunmore', 'Tideway rambler', 'TW-5002', 'full-length', 'r14-10', 288, 41),
  bike(HARBOUR, 'Gannet cargo, long 2', 'GC-0094', 'long', 'r11-9', 700, 679, 455, 230, 52),
  bike(HARBOUR, 'Gannet cargo, long 3', 'GC-0095', 'long', 'r11-9', 640, 415, 190),
  bike(HARBOUR, 'Marram parcel 3', 'MR-7782', 'step-through', 'r17-9', 610, 380, 150, 20),
  bike('Maeve Arkwright', 'Marram errand', 'MR-7790', 'step-through', 'r17-9', 520, 499),
  bike('Tideway Rowing Club', 'Tideway launch coach 1', 'TW-6101', 'open', 'r14-11', 590, 360, 130),
  bike('Tideway Rowing Club', 'Tideway launch coach 2', 'TW-6102', 'open', 'r14-11', 470, 449, 75),
  bike('Rafe Lindqvist-Moor', 'Petrel gravel', 'PT-31010', 'internal', 'r14-11', 330, 309),
  bike('Bryony Kestle', 'Marram school run', 'MC-3301', 'step-through', 'r17-8', 560, 300, 45),
  bike('Ned Ashgrove', 'Petrel school run 2', 'PT-40020', 'step-through', 'r17-8', 420, 399),
  bike('Ailish Thornbury', 'Gannet hill', 'GT-1200', 'suspension', 'r11-12w', 480, 459, 170),
  bike('Corin Vance-Ellery', 'Gannet moor', 'GT-1210', 'suspension', 'r11-12w', 250, 28),
]
const COMPLAINTS = [
  'Gears need a service',
  'Slow into the easier gears',
  'Chatters in the middle',
  'New cable, please',
  'Skips by the bakery',
]
const PEOPLE = ['Ishbel', 'Moss', 'Tarn']
/** Usual lengths by frame for the invented bikes: last loop and inner, mm. */
const LENGTHS: Record<FrameKind, { lastLoop: number; inner: number }> = {
  open: { lastLoop: 290, inner: 2020 },
  internal: { lastLoop: 215, inner: 2080 },
  headset: { lastLoop: 225, inner: 2150 },
  'full-length': { lastLoop: 305, inner: 2050 },
  'step-through': { lastLoop: 300, inner: 1980 },
  suspension: { lastLoop: 310, inner: 2090 },
  long: { lastLoop: 285, inner: 3180 },
  folding: { lastLoop: 240, inner: 1900 },
}

/** How far a turn of the barrel goes on bikes of one standard, where a caliper was put to it, mm. */
export const MEASURED_TURN_MM: Readonly<Record<string, number>> = { 'r14-10': 0.8 }

export function pastVisits(): PastVisit[] {
  const random = randomFrom(2024, 11)
  // apart from the figures, which stay as they were
  const troubles = randomFrom(2024, 12)
  const about = (mean: number, sd: number, step: number) => Math.round((mean + sd * random.normal()) / step) * step
  return PAST_BIKES.flatMap(({ visits, ...b }, k) =>
    visits.map((daysAgo, visit): PastVisit => {
      const back = visit > 0 && visits[visit - 1] - daysAgo < 30
      const newCable = !back && visit === 0
      const barrel = back ? Math.max(1, about(5, 2, 1)) : about(3, 4, 1)
      const trouble = troubleOf(troubles.next(), newCable || back)
      const L = random.next() < 0.3 ? about(-1, 2, 1) : 0
      const gapMm = Math.max(2.5, about(b.frame === 'suspension' ? 6.5 : 5, 0.8, 0.1))
      const events: LedgerEvent[] = [
        { kind: 'sensed', exceptions: [], chainWearPercent: Math.round(10 * (0.2 + 0.4 * random.next())) / 10 },
        { kind: 'sight', at: 'L', offsetMm: about(0, 0.3, 0.1) },
        ...(random.next() < 0.35 ? [gauged(Math.abs(about(1.2, 1.1, 0.1)))] : []),
        ...(newCable
          ? [
              { kind: 'replace', part: 'cable' } as const,
              {
                kind: 'housing',
                place: 'last loop',
                lengthMm: about(LENGTHS[b.frame].lastLoop, 9, 5),
                of: '4 mm',
                ends: 'metal',
              } as const,
              { kind: 'inner', lengthMm: about(LENGTHS[b.frame].inner, 30, 10) } as const,
            ]
          : []),
        { kind: 'shift', from: 2, to: 3, heard: barrel > 0 ? 'rubs-out' : 'rubs-in' },
        ...(trouble ? TROUBLES[trouble] : []),
        ...(L !== 0 ? [{ kind: 'turn', screw: 'L', sixteenths: L } as const] : []),
        ...(barrel !== 0 ? [{ kind: 'turn', screw: 'barrel', sixteenths: barrel } as const] : []),
        { kind: 'shift', from: 3, to: 4, heard: 'clean' },
        { kind: 'shift', from: 4, to: 3, heard: 'clean' },
        { kind: 'shift', from: 3, to: 2, heard: 'clean' },
        ...(visit % 2 === 0
          ? [
              { kind: 'turn', screw: 'B', sixteenths: about(4, 3, 1) || 2 } as const,
              { kind: 'gap', gapMm: Math.round(10 * gapMm) / 10, how: 'measured', at: 'stand' } as const,
            ]
          : []),
        { kind: 'proved', what: 'road', ring: null, exceptions: [] },
      ]
      return {
        ...b,
        contact: '085 555 0100',
        complaint: back ? 'Settle-in recall' : COMPLAINTS[(k + visit) % COMPLAINTS.length],
        by: PEOPLE[(k + visit) % PEOPLE.length],
        daysAgo,
        events,
        comesBack: back,
      }
    }),
  ).sort((a, b) => b.daysAgo - a.daysAgo)
}

/** How often a bike of these two years had what a screw does not cure: about as often as is usual. */
const SHARES = { friction: 0.19, hanger: 0.155, wear: 0.085 } as const
type PastTrouble = keyof typeof SHARES
function troubleOf(draw: number, none: boolean): PastTrouble | null {
  let left = draw
  return none ? null : ((Object.keys(SHARES) as PastTrouble[]).find(t => (left -= SHARES[t]) < 0) ?? null)
}
/** What was found and renewed then. */
const TROUBLES: Record<PastTrouble, readonly LedgerEvent[]> = {
  friction: [
    { kind: 'shift', from: 3, to: 4, heard: 'slow' },
    { kind: 'shift', from: 4, to: 3, heard: 'slow' },
    { kind: 'replace', part: 'cable' },
  ],
  hanger: [
    { kind: 'gauge', acrossMm: 19, camberDeg: 1.75, toeDeg: 0.1 },
    { kind: 'replace', part: 'hanger' },
    { kind: 'sight', at: 'L', offsetMm: -0.1 },
  ],
  wear: [
    { kind: 'shift', from: 3, to: 4, heard: 'skips' },
    { kind: 'shift', from: 4, to: 3, heard: 'skips' },
    { kind: 'replace', part: 'cassette' },
    { kind: 'sight', at: 'L', offsetMm: 0 },
  ],
}

const gauged = (acrossMm: number): LedgerEvent => ({
  kind: 'gauge',
  acrossMm: Math.round(acrossMm * 10) / 10,
  camberDeg: (Math.atan(acrossMm / 2 / GAUGE_RADIUS_MM) * 180) / Math.PI,
  toeDeg: 0,
})
