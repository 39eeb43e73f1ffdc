import { BRAKE_CHECKS, faultOf } from '../brake/checks'
import { BRAKE_KIND_WORDS, LEVER_WORDS } from '../brake/kinds'
import { PROOF_WORDS } from '../brake/proof'
import { BRAKE_STEPS } from '../brake/fitting'
import { RUN_WORDS } from '../cable/housing'
import { CABLE_STEPS_OF } from '../cable/steps'
import { FRONT_SEEN_WORDS } from '../front/moves'
import { FRONT_STEPS } from '../front/orders'
import { FRONT_SET_WORDS, HAND_WORDS } from '../front/words'
import { REAR_COMPLAINTS } from '../procedure/complaints'
import { isHubEvent } from '../hub/state'
import { sayHub } from '../hub/words'
import { SCHOOLS, type SchoolKind } from '../procedure/schools'
import { SENSE_CHECK } from '../procedure/senseCheck'
import { REAR_TORQUES } from '../procedure/torques'
import { fromSixteenths, sayTurns } from '../quantity/turns'
import type { LedgerEvent } from './events'
import { sayNet, SCREW_WORDS } from './net'
import { sayParts } from './parts'

const BRAKE_WORDS = { front: 'Front brake', rear: 'Rear brake' } as const
const list = (words: readonly string[]): string => words.join(', ').toLowerCase()

/** An entry in a line of words, for the ledger as a mechanic reads it. */
export function sayEvent(e: LedgerEvent, teethOf: readonly number[]): string {
  const teeth = (k: number) => teethOf[k] ?? k
  if (isHubEvent(e)) return sayHub(e)
  switch (e.kind) {
    case 'arrived':
      return 'Taken in'
    case 'parts':
      return `Drivetrain put right: ${sayParts(e.parts)}`
    case 'placed':
      return e.where === 'stand'
        ? `On stand ${e.stand}`
        : e.where === 'rack'
          ? 'On the rail'
          : e.where === 'door'
            ? 'By the door'
            : 'Collected'
    case 'shift':
      return `To the ${teeth(e.to)}: ${e.heard}`
    case 'pass':
      return e.exceptions.length
        ? `Whole pass, not clean: ${e.exceptions.map(x => teeth(x.sprocket)).join(', ')}`
        : 'Whole pass, clean'
    case 'turn':
      return `${SCREW_WORDS[e.screw]} ${sayNet(e.screw, e.sixteenths)}`
    case 'edge':
      return `On the ${teeth(e.click)}, ${e.found ? 'rubs' : 'no rub'} after ${sayTurns(fromSixteenths(e.sixteenths))} ${e.way}`
    case 'sight':
      return `${e.at} seen, ${e.offsetMm.toFixed(1)} mm`
    case 'offset':
      return `Offset on the ${teeth(e.click)}, ${e.offsetMm.toFixed(1)} mm`
    case 'gauge':
      return `Hanger ${e.acrossMm.toFixed(1)} mm across${e.readings ? `, ${e.readings.length} readings` : ''}`
    case 'bend':
      return `Hanger levered, tip ${e.tipMm.toFixed(1)} mm towards the rim at ${e.hour} o’clock`
    case 'reclamp':
      return `Clamped again, barrel ${sayTurns(fromSixteenths(e.barrelSixteenthsOut))} out`
    case 'recount':
      return `Counted again: barrel ${sayTurns(fromSixteenths(e.barrelSixteenthsOut))} out`
    case 'replace':
      return `New ${e.part}`
    case 'said':
      return `Customer says: ${REAR_COMPLAINTS.find(c => c.id === e.complaint)?.says ?? e.complaint}`
    case 'sensed':
      return `Sense check: ${e.exceptions.length ? list(SENSE_CHECK.filter(i => e.exceptions.includes(i.id)).map(i => i.otherwise)) : 'all fine'}${e.chainWearPercent === null ? '' : `, chain ${e.chainWearPercent} %`}`
    case 'housing':
      return `Housing, ${e.place}: ${e.lengthMm} mm of ${e.of}, ${e.ends} ends`
    case 'frontParts':
      return `Front: ${e.parts.rings.join('/')}, chain line ${e.parts.chainLineMm} mm, ${e.parts.cage} cage`
    case 'frontShift':
      return `Front, ring ${e.from + 1} to ${e.to + 1}${e.sprocket === undefined ? '' : ` on the ${teeth(e.sprocket)}`}: ${list([FRONT_SEEN_WORDS[e.seen]])}`
    case 'frontTurn':
      return `Front ${e.screw === 'barrel' ? 'barrel' : e.screw} ${sayNet(e.screw, e.sixteenths)}`
    case 'frontGap':
      return `Front, ${e.plate} gap ${e.gapMm.toFixed(1)} mm`
    case 'frontPosition':
      return `Front cage: ${[e.heightMm === null ? '' : `${e.heightMm.toFixed(1)} mm over the teeth`, e.angleDeg === null ? '' : `turned ${e.angleDeg.toFixed(1)}°`].filter(Boolean).join(', ')}`
    case 'frontHand':
      return `Front wire pulled by hand: ${HAND_WORDS[e.reach].toLowerCase()}`
    case 'frontUndone':
      return `Front cable undone: ${e.drops ? 'drops by itself' : 'does not drop'}; clamped again`
    case 'frontSet':
      return FRONT_SET_WORDS[e.what]
    case 'frontStep':
      return `Front: ${list([FRONT_STEPS[e.order].find(s => s.id === e.step)?.what ?? e.step])}`
    case 'brakeParts':
      return `${BRAKE_WORDS[e.parts.brake]}: ${BRAKE_KIND_WORDS[e.parts.kind].toLowerCase()}${e.parts.lever ? `, ${LEVER_WORDS[e.parts.lever].toLowerCase()} lever` : ''}${e.parts.leverSide ? `, lever on the ${e.parts.leverSide}` : ''}`
    case 'brakeSeen': {
      const c = BRAKE_CHECKS.find(x => x.id === e.check)
      return `${BRAKE_WORDS[e.brake]}: ${list([c?.outcomes.find(o => o[0] === e.outcome)?.[1] ?? e.outcome])}`
    }
    case 'brakeStep':
      return `${BRAKE_WORDS[e.brake]}: ${list([
        Object.values(BRAKE_STEPS)
          .flat()
          .find(s => s.id === e.step)?.what ?? e.step,
      ])}`
    case 'brakeNearer':
      return `${BRAKE_WORDS[e.brake]}: ${e.nearer === 'even' ? 'both pads stand alike' : `${e.nearer} pad stands nearer`}`
    case 'brakeScrew':
      return `${BRAKE_WORDS[e.brake]}, ${e.side} screw ${sayTurns(fromSixteenths(Math.abs(e.sixteenths)))} ${e.sixteenths > 0 ? 'in' : 'out'}`
    case 'brakeClose':
      return `${BRAKE_WORDS[e.brake]}: barrel ${sayTurns(fromSixteenths(e.barrelSixteenthsOut))} turns out${e.letOutMm === null ? '' : `, ${e.letOutMm} mm let out`}`
    case 'brakeCured':
      return `${BRAKE_WORDS[e.brake]}, put right: ${list([faultOf(undefined, e.fault)?.words ?? e.fault])}`
    case 'run':
      return `${RUN_WORDS[e.run.run]} run: ${e.run.pieces.map(p => (p.kind === 'guide' ? p.name : `${p.name} ${p.lengthMm}`)).join(', ')} mm`
    case 'cabled':
      return `${RUN_WORDS[e.run]}: ${list([CABLE_STEPS_OF.find(s => s.step === e.step)!.what])}`
    case 'inner':
      return `Inner ${e.lengthMm} mm`
    case 'gap':
      return `B gap ${e.gapMm.toFixed(1)} mm${e.at === 'sagged' ? ' sagged' : ''}${e.how === 'centres' ? ', from centres' : ''}`
    case 'proved':
      return `${PROVED_WORDS[e.what]}${e.ring ? `, ${e.ring} ring` : ''}: ${e.exceptions.length ? `not clean ${e.exceptions.map(teeth).join(', ')}` : 'clean'}`
    case 'torqued':
      return `Torques to sheet${e.exceptions.length ? `, but not ${list(REAR_TORQUES.filter(t => e.exceptions.includes(t.id)).map(t => t.what))}` : ''}`
    case 'cut':
      return `Inner cut, ${e.tailMm} mm left, capped`
    case 'bedded':
      return `Bedded by ${e.shifts} firm shifts`
    case 'schools':
      return `Schools: ${(Object.entries(e.choice) as [SchoolKind, string][]).map(([kind, id]) => SCHOOLS[kind].find(s => s.id === id)?.name ?? id).join(', ')}`
    case 'proof':
      return `${e.brake === 'front' ? 'Front' : 'Rear'} brake${e.test ? `, ${PROOF_WORDS[e.test].name}:` : ''} ${e.holds ? (e.test ? 'passed' : 'holds') : 'failed'}`
    case 'wrong':
      return 'The advice before this was wrong'
    case 'undo':
      return 'Took back an entry'
    case 'handedBack':
      return e.how === 'proven' ? 'Handed back' : 'Left unridable'
    case 'reopened':
      return 'Reopened'
  }
}

export const PROVED_WORDS = {
  several: 'Several clicks at a stroke',
  ring: 'Every gear both ways',
  road: 'Under load on the road',
} as const
