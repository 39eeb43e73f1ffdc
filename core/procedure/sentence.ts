import { HAPPENED, type Happened } from './happened'

/**
 * Words by which a customer's sentence points to a complaint of the list; every pattern of a row must be met.
 * `practice`
 */
const POINTS: readonly { complaint: string; by: readonly RegExp[] }[] = [
  { complaint: 'into-spokes', by: [/spoke/, /(chain|went|fell|came|into)/] },
  { complaint: 'off-outside', by: [/(fell|came|come|drop\w*|jump\w*) off/, /(outside|frame|small\w*)/] },
  { complaint: 'jumps-under-load', by: [/(jump|slip|skip)/, /(push|hill|climb|load|stand|hard|sprint|uphill)/] },
  { complaint: 'by-itself', by: [/(by itself|on its own|ghost|alone)/] },
  { complaint: 'when-steering', by: [/(steer|turn\w* the bar|lock)/] },
  { complaint: 'since-cable', by: [/(new|changed|after|since)/, /cable/] },
  { complaint: 'nothing', by: [/(nothing happens|will not shift|won.t shift|doesn.t shift|does not shift|no shift)/] },
  { complaint: 'two-gears', by: [/(two gears|skips a gear|double|misses a gear|jumps a gear)/] },
  {
    complaint: 'not-largest',
    by: [/(easiest|largest|biggest|lowest|climbing) gear|won.t go (up|into)|not reach the (large|big)/],
  },
  { complaint: 'not-smallest', by: [/(hardest|smallest|highest|fastest|top) gear|not reach the small/] },
  { complaint: 'slow-in', by: [/(slow|hesitat|late|lag|delay|reluctant)/, /(easier|up|larger|bigger|climb)/] },
  { complaint: 'slow-out', by: [/(slow|hesitat|late|lag|delay|reluctant)/, /(harder|down|smaller|faster)/] },
  { complaint: 'one-gear-chatters', by: [/(chatter|rattl|click|tick|nois|rub|grind)/, /(one gear|a gear|middle)/] },
  { complaint: 'all-chatter', by: [/(chatter|rattl|click|tick|nois|rub|grind)/, /(all|every|everywhere|always)/] },
  { complaint: 'brake-rubs', by: [/brake/, /(rub|drag|scrap)/] },
  { complaint: 'brake-weak', by: [/brake/, /(weak|bad|poor|soft|bar|won.t stop|does not stop|doesn.t stop)/] },
  { complaint: 'brake-noise', by: [/brake/, /(squeal|squeak|nois|grind)/] },
  { complaint: 'brake-stiff', by: [/brake/, /(stiff|heavy|hard to pull|slow)/] },
  { complaint: 'front-no-climb', by: [/(big|large\w*) (chain)?ring/, /(won.t|will not|not|never)/] },
  { complaint: 'front-no-drop', by: [/small\w* (chain)?ring/, /(won.t|will not|not|never)/] },
  { complaint: 'front-rubs', by: [/front/, /rub/] },
  { complaint: 'hub-slips', by: [/hub/, /(slip|no gear|jump|skip|neutral)/] },
  { complaint: 'even-skip', by: [/(skip|jump)/, /(even|every turn|regular|rhythm)/] },
  { complaint: 'noisy-largest', by: [/nois/, /(largest|biggest|easiest)/] },
]
const BEFORE: Record<Happened, RegExp> = {
  fell: /(fell over|fell|crash|dropped|tipped)/,
  knocked: /(knock|hit|bump\w* into|bent)/,
  car: /(in (a|the) car|boot|rack|train|plane|flight)/,
  'new-cable': /new (cable|wire)|cable (was )?(changed|replaced|new)/,
  'wheel-out': /(wheel (was )?(out|off|removed)|puncture|flat tyre|new tyre)/,
}

/**
 * What a customer's own sentence proposes: complaints of the list, likeliest first, and what happened before. Proposed,
 * never taken.
 */
export function proposedBy(sentence: string): { complaints: string[]; happened: Happened[] } {
  const said = sentence.toLowerCase()
  return {
    complaints: POINTS.filter(p => p.by.every(r => r.test(said))).map(p => p.complaint),
    happened: HAPPENED.filter(h => BEFORE[h].test(said)),
  }
}

/** What to look at first because of it, in words. */
export const HAPPENED_ASKS: Record<Happened, string> = {
  fell: 'Look at the hanger and the cage first.',
  knocked: 'Look at the hanger and the cage first.',
  car: 'Look along the hanger: a rack or a boot leans on it.',
  'new-cable': 'Bedding in, or a ferrule not home: tug the inner first.',
  'wheel-out': 'See that the wheel is fully home before anything.',
}
