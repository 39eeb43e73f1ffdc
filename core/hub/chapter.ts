import { chapter, type Fact, type Facts, type PartStands, type Refusal } from '../chapter/chapter'
import { figureRule, keeping, type FaultFound, type RecordFigure } from '../chapter/records'
import { fromSixteenths } from '../quantity/turns'
import type { Standards } from '../standards/inForce'
import { HUB_ENTRIES } from '../standards/tables/hubs'
import { ALL_GEARS, hubDanger } from './checkWords'
import { hubFaultWords } from './faultWords'
import { unnamedDerailleur, type Counted } from '../rear/counted'
import type { RearState } from '../rear/state'
import { HUB_EVENTS, type HubEvent } from './events'
import { HUB_WAYS, type HubParts, type HubWay } from './kinds'
import { beforeProof, hubAfter, hubStays, noHub, type HubHeard, type HubState } from './state'
import { FIGURE_OF_WAY, hubTurnWords, READING_WORDS, sayHub } from './words'

type Job = { hub: HubState; rear: Pick<RearState, 'setup'>; job: { seen: Counted | null } }

/** What a rider of a hub gear is told. `practice` */
const TELL_RIDER_HUB =
  'Hub gear: should it slip or find no gear, stop riding and come by; ease off the pedals as you change.'

const inOrder = (gears: readonly number[]): string => [...new Set(gears)].sort((a, b) => a - b).join(', ')

function facts({ hub }: Job, _: null, __: Standards): Facts {
  const { parts, asFound } = hub
  const found: Fact[] = []
  if (parts && asFound.mm !== null)
    found.push({
      what: 'Hub as found',
      figure: `${READING_WORDS[parts.way].toLowerCase()} ${asFound.mm.toFixed(1)} mm`,
    })
  if (asFound.slipped.length)
    found.push({
      what: 'Hub slipped in gear',
      figure: inOrder(asFound.slipped),
      plain: 'The hub gear slipped, which can throw a rider.',
    })
  const done: Fact[] = []
  if (parts) {
    const read = hub.readings.at(-1)
    if (read) done.push({ what: READING_WORDS[parts.way], figure: `${read.mm.toFixed(1)} mm` })
    if (hub.net !== 0)
      done.push({
        what: 'Hub cable',
        figure: `${hubTurnWords(hub.net)}, net`,
        brief: hubTurnWords(hub.net),
        plain: 'Hub gear’s cable adjusted.',
      })
    for (const id of hub.cured) done.push({ what: 'Hub, put right', figure: (hubFaultWords(id) ?? id).toLowerCase() })
    if (hub.counts.length) done.push({ what: 'Hub gears counted', figure: inOrder(hub.counts.map(c => c.gear)) })
    if (hub.proof)
      done.push({
        what: 'Hub gear',
        figure: hub.proof.holds ? 'holds in every gear' : 'failed its proof',
        plain: hub.proof.holds ? 'Hub gear ridden: it holds in every gear.' : 'The hub gear does not hold yet.',
      })
  }
  return { found, done, left: [], tell: parts ? [TELL_RIDER_HUB] : [] }
}

/** Hubs that are in no table are kept together by how they are set and how many gears they have. */
const ownStandard = (way: HubWay, gears: number): string => `hub ${way}-${gears}-own`
/** A hub by its row of the table, or by how it is set and its number of gears. */
export const hubStandard = (p: HubParts): string =>
  p.standard === null ? ownStandard(p.way, p.ratios.length) : `hub ${p.standard}`

function named(id: string): string | null {
  const listed = HUB_ENTRIES.find(e => id === `hub ${e.id}`)
  if (listed) return listed.title
  for (const way of HUB_WAYS)
    for (let gears = 2; gears <= 20; gears++)
      if (id === ownStandard(way, gears)) return `hub gear by its own ratios, ${way}, ${gears} gears`
  return null
}

function figures({ hub }: Job): RecordFigure[] {
  const { keep, kept } = keeping()
  if (!hub.parts) return kept
  keep(hubStandard(hub.parts), FIGURE_OF_WAY[hub.parts.way], hub.readings.at(-1)?.mm)
  keep(hubStandard(hub.parts), 'hub-turns', hub.net === 0 ? null : fromSixteenths(hub.net))
  return kept
}

function parts(state: Job): PartStands[] {
  const { hub, rear } = state
  if (!hub.parts && (rear.setup || unnamedDerailleur(state))) return []
  const stands = (is: PartStands['is'], words: string): PartStands[] => [{ part: 'hub', is, words }]
  if (!hub.parts) return stands('untouched', 'not said yet')
  const found = hubStays(hub).find(s => s.is === 'found')
  if (found) return stands('keeps', FOUND_BRIEF[found.id] ?? 'must not be ridden')
  if (hub.proof?.holds) return stands('right', 'holds')
  return hub.worked || hub.readings.length || hub.counts.length
    ? stands('hand', hub.net ? hubTurnWords(hub.net) : 'in hand')
    : stands('untouched', 'untouched')
}
/** What keeps a bike for its hub, where there is room for little. */
const FOUND_BRIEF: Readonly<Record<string, string>> = {
  'hub-failed': 'failed',
  'hub-slips': 'slips',
  'hub-wrong': 'another gear answers',
  'hub-nut': 'lock nut loose',
  'hub-screwed': 'chain not home',
  'hub-washers': 'washers not home',
  'hub-coupling': 'coupling slips',
}

function refuses(e: HubEvent, { hub }: Job): Refusal | null {
  const before = e.kind === 'hubProof' && e.holds ? beforeProof(hub) : null
  return before ? { field: 'holds', message: before } : null
}
/** What keeps a bike, of one entry. */
function fails(e: HubEvent): string | null {
  if (e.kind === 'hubProof') return e.holds ? null : 'hub gear failed its proof'
  if (e.kind === 'hubCount') return e.wheelTurns === null ? `hub slips or finds no gear in ${e.gear}` : null
  if (e.kind !== 'hubSeen') return null
  if (e.check === 'lock') return e.outcome === 'loose' ? 'hub’s lock nut is loose' : null
  if (e.check === ALL_GEARS) return e.outcome === 'not' ? 'not every gear of the hub holds' : null
  return hubDanger(e.check, e.outcome)
}

const standards = ({ hub }: Job): string[] =>
  hub.parts && (hub.worked || hub.readings.length > 0) ? [hubStandard(hub.parts)] : []
const faults = ({ hub: { parts, cured } }: Job): FaultFound[] =>
  parts ? cured.map(fault => ({ standard: hubStandard(parts), fault, cured: true })) : []

/** The hub gear: rod, marks or grip, which gear it is really in, its lock nut, its proof. */
export const hub = chapter<HubEvent, HubHeard, HubState, Job>({
  events: HUB_EVENTS,
  hears: ['cabled', 'wheelOut', 'replace', 'reopened'],
  start: () => noHub,
  after: hubAfter,
  say: sayHub,
  facts,
  records: {
    rules: [
      figureRule('hub-rod', 'Rod past the axle', 'mm', 1, 1),
      figureRule('hub-marks', 'Marks apart, + too tight', 'mm', 1, 1),
      figureRule('hub-play', 'Play at the grip', 'mm', 1, 2),
      figureRule('hub-turns', 'Hub cable made tighter, net', 'turns', 2, 0.5),
    ],
    standards,
    figures,
    typed: (e, { hub }) =>
      e.kind === 'hubRead' && hub.parts
        ? [{ standard: hubStandard(hub.parts), figure: FIGURE_OF_WAY[hub.parts.way], value: e.mm }]
        : [],
    faults,
    named,
  },
  gates: {
    signs: e => (e.kind === 'hubProof' ? `Hub gear ${e.holds ? 'holds in every gear' : 'failed'}` : null),
    refuses,
    fails,
  },
  stays: ({ hub }) => hubStays(hub),
  parts,
})
