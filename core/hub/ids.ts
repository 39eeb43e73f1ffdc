/**
 * What the ledger may name of a hub: looks with their outcomes, the first how it is when nothing is wrong; faults; steps.
 * Apart from their words, so that a page that only reads the log need not load them. A test holds both together.
 */
export const HUB_CHECK_OUTCOMES: Readonly<Record<string, readonly string[]>> = {
  lock: ['tight', 'loose'],
  screwed: ['home', 'not'],
  moved: ['no', 'yes'],
  wire: ['free', 'drags'],
  washers: ['home', 'not'],
  way: ['up', 'down', 'still'],
  coupling: ['holds', 'slips'],
}
export const HUB_FAULT_IDS: ReadonlySet<string> = new Set([
  'slack',
  'tight',
  'lock-nut',
  'not-home',
  'axle',
  'washers',
  'drag',
  'much-play',
  'no-play',
  'coupling',
  'crossed',
  'inside',
])
export const HUB_STEP_IDS: ReadonlySet<string> = new Set([
  'home',
  'slack',
  'window',
  'locked',
  'cycled',
  'reference',
  'marks',
  'end',
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
])
