import { RENEWED_WORDS } from './renewedWords'
import { sayNet, SCREW_WORDS } from '../chapter/screws'
import { HAPPENED_WORDS } from '../procedure/happened'
import { RIDING_WORDS } from '../standards/riding'
import { rearSays } from '../procedure/rearSays'
import { otherSays } from '../procedure/otherSays'
import { SENSE_CHECK } from '../procedure/senseCheck'
import { TORQUE_IDS, TORQUE_WORDS } from '../procedure/torques'
import { fromSixteenths, sayTurns } from '../quantity/turns'
import { listed } from '../quantity/words'

import { sayClamp } from '../procedure/clampSchools'
import type { RearEvent, RearOf } from './events'
import { GAP_LOOK_WORDS } from './gapLook'
import { HANGER_LOOK_WORDS } from './hangerEye'
import { sayParts } from './parts'
import { L_FELT_WORDS } from './stopFelt'

export const PROVED_WORDS = {
  several: 'Several clicks at a stroke',
  ring: 'Every gear both ways',
  road: 'Under load on the road',
} as const

/** What heads every bench, and was worked on as it is. */
export const WAIVED_WORDS = {
  hanger: 'Hanger out of line, worked on as it is',
  parts: 'Parts that will not index, worked on as they are',
} as const

/** What the customer says, in the words of the list. */
export const sayComplaint = (e: RearOf<'said'>): string =>
  rearSays(e.complaint) ?? otherSays(e.complaint) ?? e.complaint

/** What a sense check found: "all fine, chain 0.3 %". */
export function saySensed(e: RearOf<'sensed'>): string {
  const found = SENSE_CHECK.filter(i => e.exceptions.includes(i.id)).map(i => i.otherwise)
  return [
    found.length ? listed(found) : 'all fine',
    ...(e.chainWearPercent === null ? [] : [`chain ${e.chainWearPercent} %`]),
  ].join(', ')
}

/** A place from its plane, + inboard: "in line", "0.4 mm outboard". */
export const sayOffset = (mm: number): string =>
  Math.abs(mm) < 0.05 ? 'in line' : `${Math.abs(mm).toFixed(1)} mm ${mm > 0 ? 'inboard' : 'outboard'}`

/** An entry of the rear bench in a line of words. */
export function sayRear(e: RearEvent, teethOf: readonly number[]): string {
  const teeth = (k: number) => teethOf[k] ?? k
  switch (e.kind) {
    case 'arrived':
      return 'Taken in'
    case 'parts':
      return `Drivetrain put right: ${sayParts(e.parts)}`
    case 'shift':
      return `To the ${teeth(e.to)}: ${e.heard}`
    case 'pass':
      return e.exceptions.length
        ? `Whole pass, not clean: ${e.exceptions.map(x => teeth(x.sprocket)).join(', ')}`
        : 'Whole pass, clean'
    case 'went':
      return `To the ${teeth(e.to)}${e.back ? ' and back' : ''}, ${e.stop ? `not clean on the ${teeth(e.stop.sprocket)}: ${e.stop.heard}` : 'clean'}`
    case 'turn':
      return `${SCREW_WORDS[e.screw]} ${sayNet(e.screw, e.sixteenths)}`
    case 'edge':
      return `On the ${teeth(e.click)}, ${e.found ? 'rubs' : 'no rub'} after ${sayTurns(fromSixteenths(e.sixteenths))} ${e.way}`
    case 'sight':
      return `${e.at} seen, ${e.offsetMm.toFixed(1)} mm${inPhoto(e)}`
    case 'sounded':
      return `Microphone on the ${teeth(e.click)}: ${e.rubOdds > 1 ? 'a rub' : 'clean'}`
    case 'felt':
      return `L by thumb and ear: ${L_FELT_WORDS[e.what].toLowerCase()}`
    case 'offset':
      return `Offset on the ${teeth(e.click)}, ${e.offsetMm.toFixed(1)} mm${inPhoto(e)}`
    case 'gauge':
      return `Hanger ${e.acrossMm.toFixed(1)} mm across${e.readings ? `, ${e.readings.length} readings` : ''}`
    case 'bend':
      return `Hanger levered, tip ${e.tipMm.toFixed(1)} mm towards the rim at ${e.hour} o’clock`
    case 'reclamp':
      return `Clamped again, barrel ${sayTurns(fromSixteenths(e.barrelSixteenthsOut))} out${e.how ? `, ${sayClamp(e.how)}` : ''}`
    case 'recount':
      return `Counted again: barrel ${sayTurns(fromSixteenths(e.barrelSixteenthsOut))} out`
    case 'replace':
      return RENEWED_WORDS[e.part]
    case 'said':
      return e.withdrawn ? `Not said after all: ${sayComplaint(e).toLowerCase()}` : `Customer says: ${sayComplaint(e)}`
    case 'sensed':
      return `Sense check: ${saySensed(e)}`
    case 'housing':
      return `Housing, ${e.place}: ${e.lengthMm} mm of ${e.of}, ${e.ends} ends`
    case 'inner':
      return `Inner ${e.lengthMm} mm`
    case 'gap':
      return `B gap ${e.gapMm.toFixed(1)} mm${e.at === 'sagged' ? ' sagged' : ''}${e.how === 'measured' ? '' : e.how === 'photo' ? inPhoto(e) || ', in a photograph' : ', from centres'}`
    case 'gapSeen':
      return `B gap looked at: ${GAP_LOOK_WORDS[e.look].toLowerCase()}`
    case 'gapWanted':
      return `The maker’s B gap: ${e.gapMm} mm`
    case 'ridden':
      return `Ridden ${RIDING_WORDS[e.how]}`
    case 'happened':
      return e.what.length
        ? `Before it came: ${listed(e.what.map(w => HAPPENED_WORDS[w].toLowerCase()))}`
        : 'Nothing happened to it before'
    case 'proved':
      return `${PROVED_WORDS[e.what]}${e.ring ? `, ${e.ring} ring` : ''}: ${e.exceptions.length ? `not clean ${e.exceptions.map(teeth).join(', ')}` : 'clean'}`
    case 'torqued':
      return `Torques to sheet${e.exceptions.length ? `, but not ${listed(e.exceptions.map(id => TORQUE_WORDS[id]))}` : ''}${sayPeaks(e)}`
    case 'cut':
      return `Inner cut, ${e.tailMm} mm left, capped`
    case 'bedded':
      return `Bedded by ${e.shifts} firm shifts`
    case 'eyed':
      return `Hanger by eye: ${HANGER_LOOK_WORDS[e.hanger].toLowerCase()}`
    case 'waived':
      return WAIVED_WORDS[e.what]
    case 'declined':
      return `Left: ${sayDeclined(e.what, teeth)}`
    case 'wrong':
      return 'The advice before this was wrong'
  }
}

const inPhoto = ({ photoSdMm }: { photoSdMm?: number }): string =>
  photoSdMm === undefined ? '' : ` ± ${(1.96 * photoSdMm).toFixed(1)} in a photograph`

/** What was advised and left, in words. */
function sayDeclined(what: string, teeth: (k: number) => number): string {
  const [verb, of, way] = what.split(' ')
  switch (verb) {
    case 'turn':
      return `a turn of ${of === 'barrel' ? 'the barrel' : of}`
    case 'sight':
      return `a look at ${of}`
    case 'edge':
      return `winding ${way} to the rub on the ${teeth(Number(of))}`
    case 'offset':
      return `the pulley measured on the ${teeth(Number(of))}`
    case 'hanger':
      return 'the gauge on the hanger'
    case 'reclamp':
      return 'clamping again'
    case 'replace':
      return `a new ${of}`
    default:
      return 'listening'
  }
}

/** What a wrench read, bolt by bolt; nothing where none was used. */
function sayPeaks({ peaksNm = {} }: RearOf<'torqued'>): string {
  const read = TORQUE_IDS.flatMap(id => (peaksNm[id] === undefined ? [] : [`${TORQUE_WORDS[id]} ${peaksNm[id]} N·m`]))
  return read.length ? `; by wrench: ${listed(read)}` : ''
}
