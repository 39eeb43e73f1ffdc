import { GAUGE_RADIUS_MM } from './gaugeRadius'
import type { BenchEvent } from './benchEvents'
import { degrees } from '../quantity/angle'
import { toSixteenths } from '../quantity/turns'
import type { Advised, RearEvent } from './events'

/**
 * How a bench event is written in the shop's ledger: the reverse of the projection. `unclean` has no entry of its own.
 */
export function ledgerEventOf(event: Exclude<BenchEvent, { kind: 'unclean' }>, advised?: Advised): RearEvent {
  const told = advised ? { advised } : {}
  switch (event.kind) {
    case 'shift':
      return { kind: 'shift', from: event.from, to: event.to, heard: event.heard, ...told }
    case 'sounded':
      return { kind: 'sounded', click: event.to, rubOdds: event.rubOdds }
    case 'turn':
      return { kind: 'turn', screw: event.screw, sixteenths: toSixteenths(event.turns), ...told }
    case 'sight':
      return { kind: 'sight', at: event.at, offsetMm: event.offsetMm, photoSdMm: event.photoSdMm, ...told }
    case 'offset':
      return { kind: 'offset', click: event.click, offsetMm: event.offsetMm, ...told }
    case 'edge':
      return {
        kind: 'edge',
        click: event.click,
        way: event.way,
        sixteenths: toSixteenths(event.turns),
        found: event.found,
        ...told,
      }
    case 'hanger':
      if (event.sdDeg !== undefined) throw new RangeError('an eye has its own entry')
      return {
        kind: 'gauge',
        camberDeg: event.camberDeg,
        toeDeg: event.toeDeg,
        acrossMm: acrossOf(event.camberDeg, event.toeDeg),
        ...told,
      }
    case 'reclamp':
      return { kind: 'reclamp', barrelSixteenthsOut: toSixteenths(event.barrelTurnsOut), ...told }
    case 'replace':
      return { kind: 'replace', part: event.part, ...told }
    case 'bend':
      return { kind: 'bend', hour: 12, tipMm: 1 }
  }
}

const tan = (deg: number): number => Math.tan(deg / degrees(1))
const acrossOf = (camberDeg: number, toeDeg: number): number =>
  2 * GAUGE_RADIUS_MM * Math.hypot(tan(camberDeg), tan(toeDeg))
