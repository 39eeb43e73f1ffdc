import { leastRadiusMm, RUNS, usualHousing, usualTailMm, type RunName } from './housing'
import { asRead, type Piece, type Run } from './run'

/** A kind of bike with its usual runs; a start to be measured on the bike. Lengths are `memory`, bends `model`. */
type RunTemplate = { id: string; name: string; runs: readonly { run: RunName; pieces: Piece[] }[] }

const housing = (run: RunName, name: string, lengthMm: number, ...bendsDeg: number[]): Piece => ({
  kind: 'housing',
  name,
  lengthMm,
  of: usualHousing(run),
  bends: bendsDeg.map(deg => ({ deg, radiusMm: Math.max(70, leastRadiusMm(run)) })),
})
const bare = (name: string, lengthMm: number): Piece => ({ kind: 'bare', name, lengthMm })
/** A guide under the bracket is 60 to 90° of dirty plastic. `memory` */
const bracket: Piece = { kind: 'guide', name: 'bracket guide', bend: { deg: 75, radiusMm: 60 } }

type Runs = Readonly<Record<RunName, readonly Piece[]>>
/** Every bike has them all to choose from, whatever hangs on it. */
const template = (id: string, name: string, runs: Runs): RunTemplate => ({
  id,
  name,
  runs: RUNS.map(run => ({ run, pieces: [...runs[run]] })),
})

/** From a lever to a brake on the same fork: it turns with the bars and is the same on most bikes. */
const LEVER_TO_BRAKE = [housing('front-brake', 'lever to brake', 520, 100, 60)]
/** A whole length, and the second cable of a hub that takes two: a little longer. */
const wholeHub = (lengthMm: number, ...bendsDeg: number[]): Pick<Runs, 'hub' | 'hub-second'> => ({
  hub: [housing('hub', 'whole length', lengthMm, ...bendsDeg)],
  'hub-second': [housing('hub-second', 'whole length', lengthMm + 20, ...bendsDeg)],
})
/** Wire bare under the bracket to the cage. */
const stoppedFront = (loopMm: number, bendDeg: number, where: string, bareMm: number): Piece[] => [
  housing('front', 'lever loop', loopMm, bendDeg),
  bare(where, bareMm),
  bracket,
  bare('to the cage', 120),
]
const stoppedHub = (
  loopMm: number,
  bareMm: number,
  where: string,
  lastMm: number,
): Pick<Runs, 'hub' | 'hub-second'> => ({
  hub: [housing('hub', 'lever loop', loopMm, 90), bare(where, bareMm), housing('hub', 'to the hub', lastMm, 60)],
  'hub-second': [
    housing('hub-second', 'lever loop', loopMm, 90),
    bare(where, bareMm),
    housing('hub-second', 'to the hub', lastMm + 20, 60),
  ],
})

export const RUN_TEMPLATES: readonly RunTemplate[] = [
  template('external', 'Outside, with stops', {
    rear: [
      housing('rear', 'lever loop', 420, 90),
      bare('down tube', 560),
      bracket,
      bare('chainstay', 380),
      housing('rear', 'last loop', 290, 150),
    ],
    front: stoppedFront(420, 90, 'down tube', 560),
    'front-brake': LEVER_TO_BRAKE,
    'rear-brake': [
      housing('rear-brake', 'lever loop', 430, 90),
      bare('top tube', 480),
      housing('rear-brake', 'to the brake', 260, 90),
    ],
    ...stoppedHub(420, 900, 'down tube', 250),
  }),
  template('internal', 'Inside the frame', {
    rear: [
      housing('rear', 'lever loop', 440, 90),
      bare('in the down tube', 620),
      bracket,
      bare('in the chainstay', 390),
      housing('rear', 'last loop', 215, 120),
    ],
    front: stoppedFront(440, 90, 'in the down tube', 620),
    'front-brake': LEVER_TO_BRAKE,
    'rear-brake': [housing('rear-brake', 'whole length', 1350, 90, 40, 90)],
    ...wholeHub(1500, 90, 40, 60),
  }),
  template('full-length', 'Full-length housing', {
    rear: [housing('rear', 'whole length', 1720, 90, 60, 150)],
    front: [housing('front', 'whole length', 980, 90, 60)],
    'front-brake': LEVER_TO_BRAKE,
    'rear-brake': [housing('rear-brake', 'whole length', 1400, 90, 60, 60)],
    ...wholeHub(1550, 90, 60, 60),
  }),
  template('suspension', 'Rear suspension', {
    rear: [housing('rear', 'whole length', 1820, 90, 60, 60, 150)],
    front: [housing('front', 'whole length', 1020, 90, 60)],
    'front-brake': [housing('front-brake', 'lever to brake', 620, 100, 60)],
    'rear-brake': [housing('rear-brake', 'whole length', 1560, 90, 60, 60, 60)],
    ...wholeHub(1650, 90, 60, 60, 60),
  }),
  template('folding', 'Folding', {
    rear: [housing('rear', 'whole length', 1600, 120, 90, 120)],
    front: [housing('front', 'whole length', 1150, 120, 90)],
    'front-brake': [housing('front-brake', 'lever to brake', 780, 120, 60)],
    'rear-brake': [housing('rear-brake', 'whole length', 1600, 120, 90, 60)],
    ...wholeHub(1650, 120, 90, 60),
  }),
  template('long', 'Cargo and tandem', {
    rear: [
      housing('rear', 'lever loop', 520, 100),
      bare('along the frame', 1650),
      bracket,
      bare('chainstay', 420),
      housing('rear', 'last loop', 285, 150),
    ],
    front: stoppedFront(520, 100, 'along the frame', 1650),
    'front-brake': [housing('front-brake', 'lever to brake', 1500, 100, 60, 60)],
    'rear-brake': [
      housing('rear-brake', 'lever loop', 520, 100),
      bare('along the frame', 1700),
      housing('rear-brake', 'to the brake', 320, 90),
    ],
    ...stoppedHub(520, 2050, 'along the frame', 250),
  }),
  template('headset', 'Through the headset', {
    rear: [
      housing('rear', 'bar to headset', 460, 90, 80),
      bare('in the frame', 980),
      bracket,
      housing('rear', 'last loop', 215, 120),
    ],
    front: [
      housing('front', 'bar to headset', 460, 90, 80),
      bare('in the frame', 560),
      bracket,
      bare('to the cage', 120),
    ],
    'front-brake': LEVER_TO_BRAKE,
    'rear-brake': [housing('rear-brake', 'whole length', 1450, 90, 80, 60)],
    ...wholeHub(1600, 90, 80, 60),
  }),
]

/** A run of a template, its wire taken as clean. @throws RangeError when the template has no such run */
export function templateRun(id: string, run: RunName): Run {
  const template = RUN_TEMPLATES.find(t => t.id === id)
  const found = template?.runs.find(r => r.run === run)
  if (!found) throw new RangeError(`template ${id} has no ${run} run`)
  return asRead(
    { run, condition: 'used', tailMm: usualTailMm(), pieces: structuredClone(found.pieces) },
    'template',
    template!.name,
  )
}
