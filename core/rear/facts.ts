import type { CableState } from '../cable/state'
import type { Fact, Facts } from '../chapter/chapter'
import { SCREWS, SCREW_WORDS, sayNet } from '../chapter/screws'
import { sayChance } from '../quantity/chance'
import { fromSixteenths, sayTurns } from '../quantity/turns'
import { CAUSES, CAUSE_WORDS, type Cause } from '../response/causes'
import type { Standards } from '../standards/inForce'
import type { Part } from './benchEvents'
import type { RearOf } from './events'
import { gapLeft } from './gapNext'
import { sayComplaint, sayOffset, saySensed, WAIVED_WORDS } from './say'
import { newRunOf } from './newRun'
import { sayForecast, SETTLE, settleForecast, settlingIn, TELL_RIDER } from './settle'
import { barrelLeft } from './ofState'
import { indexHeard } from './toIndex'
import type { RearState } from './state'

/** What a belief says of a rear: before the barrel was first turned, and as it leaves. */
export type RearOpinion = {
  asFound: Record<Cause, number>
  right: number
  causes: Record<Cause, number>
  windowTurns: { from: number; to: number } | null
}

/** From this chance a cause is named. */
const NAMED = 0.5

/** What the sheet says of a rear derailleur. */
export const rearFacts = (
  { rear, cable }: { rear: RearState; cable: CableState },
  opinion: RearOpinion | null,
  s: Standards,
): Facts => ({
  found: found(rear, opinion),
  done: done(rear),
  left: left(rear, opinion),
  tell: tell(rear, cable, s),
})

function found(rear: RearState, opinion: RearOpinion | null): Fact[] {
  const out: Fact[] = []
  const { said, sensed, gaps, bench } = rear
  if (said.length) out.push({ what: 'Complaint', figure: said.map(s => sayComplaint(s).toLowerCase()).join(', ') })
  if (sensed) out.push({ what: 'Sense check', figure: saySensed(sensed) })
  if (gaps.length)
    out.push({
      what: 'B gap as found',
      figure: `${gaps[0].event.gapMm.toFixed(1)} mm${gaps[0].event.at === 'sagged' ? ' with sag' : ''}`,
    })
  for (const e of rear.found)
    out.push(
      e.kind === 'sight'
        ? { what: `${e.at} stop seen`, figure: sayOffset(e.offsetMm) }
        : {
            what: 'Hanger',
            plain: 'We gauged the hanger, which carries the derailleur.',
            figure: `${e.acrossMm.toFixed(1)} mm across the wheel, camber ${e.camberDeg.toFixed(1)}°`,
          },
    )
  const heard = bench.filter(e => e.kind === 'shift')
  const bad = heard.filter(e => e.heard !== 'clean').length
  if (heard.length) out.push({ what: 'Shifts heard', figure: `${heard.length}, of them ${bad} not clean` })
  if (opinion && indexHeard(rear)) {
    const causes = CAUSES.filter(c => opinion.asFound[c] >= NAMED)
    const words = causes.map(c => `${CAUSE_WORDS[c].toLowerCase()} ${sayChance(opinion.asFound[c])}`)
    if (causes.length)
      out.push({ what: 'Judged to be', figure: words.join(', '), plain: causes.map(c => PLAIN_CAUSE[c]).join(' ') })
  }
  return out
}

/** What was wrong, as a customer understands it. */
const PLAIN_CAUSE: Record<Cause, string> = {
  tension: 'The gear cable was out of adjustment.',
  friction: 'The gear cable ran stiffly.',
  hanger: 'The hanger, which carries the derailleur, was bent.',
  mismatch: 'Parts of the gears do not belong together.',
  stops: 'A screw that limits the derailleur’s travel was wrongly set.',
  wear: 'Some of the sprockets are worn.',
}
/** What turning a screw set, as a customer understands it. */
const PLAIN_SET: Record<(typeof SCREWS)[number], string> = {
  barrel: 'Gear cable adjusted.',
  H: 'Limit of the derailleur’s travel set.',
  L: 'Limit of the derailleur’s travel set.',
  B: 'Distance from derailleur to sprockets set.',
}

const RENEWED: Record<Part, string> = {
  cable: 'Cable and housing renewed',
  hanger: 'Hanger renewed',
  shifter: 'Shifter renewed',
  derailleur: 'Derailleur renewed',
  cassette: 'Cassette renewed',
}

/** Parts for the till; what a cable takes is said with its pieces. */
const USED: Record<Part, string[]> = {
  cable: [],
  hanger: ['Derailleur hanger'],
  shifter: ['Shifter'],
  derailleur: ['Rear derailleur'],
  cassette: ['Cassette'],
}

const PROVEN: Record<RearOf<'proved'>['what'], (ring: RearOf<'proved'>['ring']) => string> = {
  ring: ring => (ring ? `Proven, ${ring} ring` : 'Proven, every gear'),
  several: () => 'Proven, several clicks',
  road: () => 'Proven on the road',
}

function done(rear: RearState): Fact[] {
  const out: Fact[] = []
  for (const screw of SCREWS) {
    if (!rear.turned.has(screw)) continue
    const since = rear.restarted.has(screw) ? ' since it was renewed' : ''
    out.push({
      what: SCREW_WORDS[screw],
      figure: `${sayNet(screw, rear.net[screw])}, net${since}`,
      brief: sayNet(screw, rear.net[screw]),
      plain: PLAIN_SET[screw],
    })
  }
  for (const c of rear.clamps)
    out.push({
      what: 'Clamped again',
      plain: 'Gear cable clamped anew.',
      figure: `barrel ${sayTurns(fromSixteenths(c.barrelSixteenthsOut))} out`,
    })
  for (const b of rear.bends)
    out.push({
      what: 'Hanger levered',
      plain: 'Derailleur hanger straightened.',
      figure: `${b.tipMm.toFixed(1)} mm at ${b.hour} o’clock`,
    })
  for (const part of rear.renewed)
    out.push({ what: RENEWED[part], figure: '', plain: `${RENEWED[part]}.`, used: USED[part] })
  for (const h of rear.housing)
    out.push({
      what: `Housing, ${h.place}`,
      figure: `${h.lengthMm} mm of ${h.of}, ${h.ends}`,
      used: [`Gear housing ${h.lengthMm} mm`],
    })
  if (rear.inner) out.push({ what: 'Inner', figure: `${rear.inner.lengthMm} mm`, used: ['Gear inner'] })
  if (rear.cut) out.push({ what: 'Cut and capped', figure: `${rear.cut.tailMm} mm left` })
  if (rear.beddedShifts) out.push({ what: 'Bedded', figure: `${rear.beddedShifts} shifts` })
  for (const p of rear.proved)
    out.push({
      what: PROVEN[p.what](p.ring),
      figure: p.exceptions.length
        ? `not clean ${p.exceptions.map(k => rear.parts?.cassette.teeth[k] ?? `gear ${k + 1}`).join(', ')}`
        : 'clean',
      ...(p.exceptions.length ? {} : { plain: 'Every gear tried, and clean.' }),
    })
  if (rear.torqued)
    out.push({
      what: 'Torques',
      plain: 'Bolts tightened to their torque.',
      figure: [
        rear.torqued.exceptions.length ? `to sheet but ${rear.torqued.exceptions.length}` : 'all to sheet',
        ...(rear.torqued.peaksNm ? [`${Object.keys(rear.torqued.peaksNm).length} read by wrench`] : []),
      ].join(', '),
    })
  return out
}

function left(rear: RearState, opinion: RearOpinion | null): Fact[] {
  const out: Fact[] = []
  const travel = barrelLeft(rear)
  if (rear.parts && travel)
    out.push(
      {
        what: 'Barrel',
        figure: `${sayTurns(fromSixteenths(rear.barrelSixteenths))} turns out${barrelAssumed(rear) ? ' (counted from an assumed start)' : ''}`,
      },
      {
        what: 'Barrel left',
        figure: `${sayTurns(travel.inTurns)} to slacken, ${sayTurns(travel.outTurns)} to tighten`,
      },
    )
  for (const at of ['stand', 'sagged'] as const) {
    const now = gapLeft(rear, at)
    if (now !== null) out.push({ what: at === 'stand' ? 'B gap' : 'B gap with sag', figure: `${now.toFixed(1)} mm` })
  }
  for (const what of rear.waived) out.push({ what: 'Left as it is', figure: WAIVED_WORDS[what].toLowerCase() })
  if (opinion && indexHeard(rear)) {
    out.push({ what: 'Every gear clean', figure: `${sayChance(opinion.right)} sure` })
    if (opinion.windowTurns) {
      const { from, to } = opinion.windowTurns
      out.push({ what: 'Clean between', figure: `${sayTurns(from)} and ${sayTurns(to)} turns out` })
    }
  }
  return out
}

/**
 * Is how far out the barrel stands only counted from an assumed start? A clamp with its figure, or a recount, makes it
 * known.
 */
export const barrelAssumed = (rear: RearState): boolean => !rear.barrelCounted

/** A replaceable hanger that was bent back: weaker than it was, and not renewed since. */
const bentBack = (rear: RearState): boolean =>
  rear.bends.length > 0 && rear.gauges.at(-1)?.event.hanger === 'replaceable' && !rear.renewed.includes('hanger')

const BENT_BACK = 'The derailleur hanger was bent back this once and is weaker for it: have a new one fitted soon.'

function tell(rear: RearState, cable: CableState, s: Standards): string[] {
  if (!rear.parts) return []
  return [...(bentBack(rear) ? [BENT_BACK] : []), ...tellSettle(rear, cable, s)]
}

function tellSettle(rear: RearState, cable: CableState, s: Standards): string[] {
  const run = newRunOf(rear, cable)
  if (!run) return [TELL_RIDER]
  const settle = settleForecast(run, settlingIn(s))
  const less = rear.beddedShifts ? ', less for the bedding shifts done' : ''
  return [
    `A new run beds in: expect the barrel ${sayForecast(settle)} after ${SETTLE.rides} or ${SETTLE.weeks}${less}.`,
    TELL_RIDER,
  ]
}
