import type { PartOfJob } from '../chapter/chapter'
import type { LengthId } from './measures'

/** What can be measured in a photograph. */
export type MeasureId = 'offset' | 'L' | 'H' | 'gap' | LengthId | 'frontPads' | 'rearPads'
export const MEASURE_WORDS: Record<MeasureId, string> = {
  offset: 'Pulley beside its sprocket',
  L: 'Where L stands',
  H: 'Where H stands',
  gap: 'B gap',
  rod: 'Rod past the axle',
  marks: 'Hub marks',
  plate: 'Plate over the ring',
  innerGap: 'Inner gap, as it stands',
  outerGap: 'Outer gap, as it stands',
  innerStop: 'Inner gap on L, cable slack',
  outerStop: 'Outer gap on H, wire drawn',
  frontPads: 'Front pads to the rim',
  rearPads: 'Rear pads to the rim',
  yoke: 'Yoke’s height',
  tail: 'Cable’s tail',
}
/** Which part of the bike it is of. */
export const MEASURE_PART: Record<MeasureId, PartOfJob> = {
  offset: 'rear',
  L: 'rear',
  H: 'rear',
  gap: 'rear',
  rod: 'hub',
  marks: 'hub',
  plate: 'front',
  innerGap: 'front',
  outerGap: 'front',
  innerStop: 'front',
  outerStop: 'front',
  frontPads: 'front-brake',
  rearPads: 'rear-brake',
  yoke: 'front-brake',
  tail: 'cables',
}
/** Which way a length is said, where it has two: the first is +, as its bench reads it. */
export const MEASURE_WAYS: Partial<Record<MeasureId, readonly [string, string]>> = {
  rod: ['past the axle', 'inside it'],
  marks: ['too tight', 'too slack'],
}
/** What an address asks to be measured; the pulley's offset where it asks for nothing that is. */
export const askOfMeasure = (what: unknown): MeasureId =>
  typeof what === 'string' && what in MEASURE_WORDS ? (what as MeasureId) : 'offset'
