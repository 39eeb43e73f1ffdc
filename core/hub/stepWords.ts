import type { HubWay } from './kinds'

/** The steps of setting a hub, in their order. */
export const HUB_STEP_IDS: Record<HubWay, readonly string[]> = {
  rod: ['home', 'slack', 'window', 'locked', 'cycled'],
  marks: ['reference', 'marks', 'end', 'cycled'],
  twin: [
    'parted',
    'inners-out',
    'lower',
    'upper',
    'adjusters',
    'fourteen',
    'cut-rear',
    'rear-coupled',
    'cut-front',
    'front-coupled',
    'clicks',
    'play',
  ],
}

/** The steps of setting a hub by name; how each is done stands in `steps.ts`, which only the bench asks. */
const WORDS: ReadonlyMap<string, string> = new Map([
  ['home', 'Chain into the axle'],
  ['slack', 'Lever at its slackest'],
  ['window', 'Rod in the window'],
  ['locked', 'Lock the nut'],
  ['cycled', 'Every gear'],
  ['reference', 'Setting gear'],
  ['marks', 'Marks in line'],
  ['end', 'To an end and back'],
  ['parted', 'Couplings parted, wires free'],
  ['inners-out', 'Inners out of the grip'],
  ['lower', 'Lower inner in'],
  ['upper', 'Upper inner in'],
  ['adjusters', 'Adjusters in, then two turns out'],
  ['fourteen', 'Hub and grip to 14'],
  ['cut-rear', 'Rear inner cut'],
  ['rear-coupled', 'Rear coupling'],
  ['cut-front', 'Front inner cut'],
  ['front-coupled', 'Front coupling'],
  ['clicks', 'All 14: 13 clicks'],
  ['play', 'Play in the grip'],
])

/** A step in words by its id; undefined where no hub is set by it. */
export const hubStepWords = (id: string): string | undefined => WORDS.get(id)
