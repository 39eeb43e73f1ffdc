import { leastRadiusMm, usualHousing, usualTailMm, type RunName } from './housing'
import { asRead, type Piece, type Run } from './run'

/** A kind of bike with its usual runs; a start to be measured on the bike. Lengths are `memory`, bends `model`. */
type RunTemplate = { id: string; name: string; why: string; runs: { run: RunName; pieces: Piece[] }[] }

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

export const RUN_TEMPLATES: readonly RunTemplate[] = [
  {
    id: 'external',
    name: 'Outside, with stops',
    why: 'Housing only where it bends, wire bare between stops: least drag, open to dirt.',
    runs: [
      {
        run: 'rear',
        pieces: [
          housing('rear', 'lever loop', 420, 90),
          bare('down tube', 560),
          bracket,
          bare('chainstay', 380),
          housing('rear', 'last loop', 290, 150),
        ],
      },
      {
        run: 'front',
        pieces: [housing('front', 'lever loop', 420, 90), bare('down tube', 560), bracket, bare('to the cage', 120)],
      },
      { run: 'front-brake', pieces: [housing('front-brake', 'lever to brake', 520, 100, 60)] },
      {
        run: 'rear-brake',
        pieces: [
          housing('rear-brake', 'lever loop', 430, 90),
          bare('top tube', 480),
          housing('rear-brake', 'to the brake', 260, 90),
        ],
      },
      {
        run: 'hub',
        pieces: [housing('hub', 'lever loop', 420, 90), bare('down tube', 900), housing('hub', 'to the hub', 250, 60)],
      },
      {
        run: 'hub-second',
        pieces: [
          housing('hub-second', 'lever loop', 420, 90),
          bare('down tube', 900),
          housing('hub-second', 'to the hub', 270, 60),
        ],
      },
    ],
  },
  {
    id: 'internal',
    name: 'Inside the frame',
    why: 'Thread an old inner with a washer through the new piece, or pull a liner in before the inner comes out.',
    runs: [
      {
        run: 'rear',
        pieces: [
          housing('rear', 'lever loop', 440, 90),
          bare('in the down tube', 620),
          bracket,
          bare('in the chainstay', 390),
          housing('rear', 'last loop', 215, 120),
        ],
      },
      { run: 'rear-brake', pieces: [housing('rear-brake', 'whole length', 1350, 90, 40, 90)] },
      { run: 'front-brake', pieces: [housing('front-brake', 'lever to brake', 520, 100, 60)] },
    ],
  },
  {
    id: 'full-length',
    name: 'Full-length housing',
    why: 'More drag, less dirt, longer to bed in.',
    runs: [
      { run: 'rear', pieces: [housing('rear', 'whole length', 1720, 90, 60, 150)] },
      { run: 'rear-brake', pieces: [housing('rear-brake', 'whole length', 1400, 90, 60, 60)] },
    ],
  },
  {
    id: 'suspension',
    name: 'Rear suspension',
    why: 'Length at full travel, air out: it must not pull anywhere on the way.',
    runs: [{ run: 'rear', pieces: [housing('rear', 'whole length', 1820, 90, 60, 60, 150)] }],
  },
  {
    id: 'folding',
    name: 'Folding',
    why: 'Three folds, then index again.',
    runs: [
      { run: 'rear', pieces: [housing('rear', 'whole length', 1600, 120, 90, 120)] },
      { run: 'hub', pieces: [housing('hub', 'whole length', 1650, 120, 90, 60)] },
      { run: 'hub-second', pieces: [housing('hub-second', 'whole length', 1670, 120, 90, 60)] },
    ],
  },
  {
    id: 'long',
    name: 'Cargo and tandem',
    why: 'A long wire gives: expect a soft brake lever, and never join a brake’s inner.',
    runs: [
      {
        run: 'rear',
        pieces: [
          housing('rear', 'lever loop', 520, 100),
          bare('along the frame', 1650),
          bracket,
          bare('chainstay', 420),
          housing('rear', 'last loop', 285, 150),
        ],
      },
      {
        run: 'rear-brake',
        pieces: [
          housing('rear-brake', 'lever loop', 520, 100),
          bare('along the frame', 1700),
          housing('rear-brake', 'to the brake', 320, 90),
        ],
      },
    ],
  },
  {
    id: 'headset',
    name: 'Through the headset',
    why: 'Fifty steering cycles before it is indexed.',
    runs: [
      {
        run: 'rear',
        pieces: [
          housing('rear', 'bar to headset', 460, 90, 80),
          bare('in the frame', 980),
          bracket,
          housing('rear', 'last loop', 215, 120),
        ],
      },
      { run: 'rear-brake', pieces: [housing('rear-brake', 'whole length', 1450, 90, 80, 60)] },
    ],
  },
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
