import type { Heard } from '../response/heard'

export type Part = 'cable' | 'hanger' | 'shifter' | 'derailleur' | 'cassette'
export const PARTS = ['cable', 'hanger', 'shifter', 'derailleur', 'cassette'] as const satisfies readonly Part[]
export type Screw = 'barrel' | 'H' | 'L'

/**
 * What happened at the bench; the meaning of each kind is in docs/advice.md. Offsets in mm + inboard, turns + out
 * (barrel) or + in (H, L).
 */
export type BenchEvent =
  /** `ear`, beyond the contract: the share of reports that this ear gets wrong, where it is known. */
  | { kind: 'shift'; from: number; to: number; heard: Heard; ear?: number }
  /**
   * Beyond the contract: arriving at `to`, at least one of these ways was not clean; what it sounded like was not said.
   */
  | { kind: 'unclean'; to: number; ways: ('spokes' | 'frame')[]; ear?: number }
  /**
   * Beyond the contract: in the gear the chain runs in, a microphone's own evidence: how many times as likely that
   * sound is from a chain that rubs there as from one that does not. It moves nothing and takes no hand.
   */
  | { kind: 'sounded'; to: number; rubOdds: number }
  | { kind: 'turn'; screw: Screw; turns: number }
  /**
   * Beyond the contract, how far it may be off: `sdMm`, judged by thumb or ear, so not seen and opening no gate;
   * `photoSdMm`, measured in a photograph, so seen.
   */
  | { kind: 'sight'; at: 'H' | 'L'; offsetMm: number; sdMm?: number; photoSdMm?: number }
  | { kind: 'offset'; click: number; offsetMm: number; photoSdMm?: number }
  | { kind: 'edge'; click: number; way: 'out' | 'in'; turns: number; found: boolean }
  /** `sdDeg`, beyond the contract: how far an eye may be off, where no gauge was at hand. */
  | { kind: 'hanger'; camberDeg: number; toeDeg: number; sdDeg?: number }
  /** `takeUpMm`, beyond the contract: cable that the way of drawing leaves against snug, mm, where it is known. */
  | { kind: 'reclamp'; barrelTurnsOut: number; takeUpMm?: { from: number; to: number } }
  | { kind: 'replace'; part: Part }
  /**
   * Beyond the contract: the hanger was levered. Stops and offset have moved, neither stop counts as seen, lever at 0.
   */
  | { kind: 'bend' }

/** What each step costs a mechanic, in units of a shift listened to (model, section 5). */
export const MOVE_COST = {
  shift: 1,
  unclean: 1,
  sounded: 0,
  turn: 1,
  sight: 2,
  offset: 2,
  edge: 2,
  reclamp: 3,
  hanger: 4,
  bend: 4,
} as const
const PART_COST: Record<Part, number> = { cable: 10, hanger: 10, cassette: 15, shifter: 15, derailleur: 15 }

/** The mechanic's patience with one bike, in units of a shift listened to (model, section 5). */
export const PATIENCE = 80

export const costOf = (event: BenchEvent): number =>
  event.kind === 'replace' ? PART_COST[event.part] : MOVE_COST[event.kind]
