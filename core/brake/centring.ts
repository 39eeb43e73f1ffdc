import { fromSixteenths, sayTurnsOf } from '../quantity/turns'
import type { BrakeKind } from './kinds'
import { otherSide, type Nearer, type Side } from './sides'

/** A turn of a spring or centring screw, sixteenths, + in. */
export type CentringTurn = { side: Side; sixteenths: number }
/** What was seen and turned, in order. */
export type Centring = readonly ({ kind: 'seen'; nearer: Nearer } | ({ kind: 'turned' } & CentringTurn))[]

/** First step of a screw, sixteenths: small, as a screw overdone puts the fault on the other side. `practice` */
const FIRST_SIXTEENTHS = 2
/** A calliper further out than the screw was ever meant to take is moved as a whole. `model` */
const SCREW_MOST_SIXTEENTHS = 16

type CentringMove =
  | { do: 'turn'; turn: CentringTurn; why: string }
  | { do: 'body'; why: string }
  | { do: 'look' }
  | { do: 'done' }

/**
 * The next small step of centring by what was seen. Linear-pull and cantilever: the lazy arm's spring screw in, for
 * more outward push; once the fault has changed sides, half of the last step back. Dual-pivot: the screw on `screwSide`
 * in brings that side's pad towards the rim. `practice`
 */
export function centringMove(kind: BrakeKind, log: Centring, screwSide: Side = 'right'): CentringMove {
  const last = log.at(-1)
  if (!last || last.kind === 'turned') return { do: 'look' }
  if (last.nearer === 'even') return { do: 'done' }
  const turns = log.filter(e => e.kind === 'turned')
  const before = log.slice(0, -1).findLast(e => e.kind === 'seen')
  const turned = turns.at(-1)
  const crossed =
    turned !== undefined && before?.kind === 'seen' && before.nearer !== 'even' && before.nearer !== last.nearer
  if (kind === 'dual-pivot') {
    const net = turns.reduce((s, t) => s + t.sixteenths, 0)
    if (turns.length === 0 && log.length === 1)
      return {
        do: 'body',
        why: 'Squeeze, shift the body until both pads touch together, nip while holding. The screw is for the rest.',
      }
    if (crossed)
      return {
        do: 'turn',
        turn: { side: screwSide, sixteenths: -half(turned.sixteenths) },
        why: 'It has changed sides: half of the last step back.',
      }
    const sixteenths = (last.nearer === screwSide ? -1 : 1) * FIRST_SIXTEENTHS
    if (Math.abs(net + sixteenths) > SCREW_MOST_SIXTEENTHS)
      return { do: 'body', why: 'The screw is near its end: move the body again.' }
    return { do: 'turn', turn: { side: screwSide, sixteenths }, why: `In brings the ${screwSide} pad towards the rim.` }
  }
  if (crossed)
    return {
      do: 'turn',
      turn: { side: turned.side, sixteenths: -half(turned.sixteenths) },
      why: 'Overdone, the fault has changed sides: half of that back.',
    }
  // twice the same screw and still nearer: the other side's is let out as well
  const same = turns.filter(t => t.side === last.nearer && t.sixteenths > 0).length
  if (same >= 4)
    return {
      do: 'turn',
      turn: { side: otherSide(last.nearer), sixteenths: -FIRST_SIXTEENTHS },
      why: 'The lazy arm’s screw is well in: the other one out a little, pump, look.',
    }
  return {
    do: 'turn',
    turn: { side: last.nearer, sixteenths: FIRST_SIXTEENTHS },
    why: `The ${last.nearer} arm is lazy: its screw in for more outward push, then pump.`,
  }
}

const half = (sixteenths: number): number => Math.sign(sixteenths) * Math.max(1, Math.floor(Math.abs(sixteenths) / 2))

/** Squeezed, a rim pushed to one side is pushed by the pad of the other, which touches first. Plain mechanics. */
export const nearerOfPush = (pushedTo: Side | null): Nearer => (pushedTo === null ? 'even' : otherSide(pushedTo))

/**
 * A screw turned while pumping until both leave together: what was turned where it was counted, and that it is even.
 */
export const cameEven = (turn: CentringTurn): Centring => [
  { kind: 'turned', ...turn },
  { kind: 'seen', nearer: 'even' },
]

/** A turn of a centring screw in words: "left screw 1/8 turn in". */
export const sayScrewTurn = ({ side, sixteenths }: CentringTurn): string =>
  `${side} screw ${sayTurnsOf(fromSixteenths(Math.abs(sixteenths)))} ${sixteenths > 0 ? 'in' : 'out'}`

/** Is the brake kind centred by screws at all? */
export const hasCentring = (kind: BrakeKind): boolean =>
  kind === 'linear-pull' || kind === 'cantilever' || kind === 'dual-pivot'
