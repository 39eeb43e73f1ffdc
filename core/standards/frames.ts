import { z } from 'zod'

/** Kinds of frame that decide how long housing and inners are: records are kept apart by them. */
export const FRAME_KINDS = [
  'open',
  'internal',
  'headset',
  'full-length',
  'step-through',
  'suspension',
  'long',
  'folding',
] as const
export const FrameKind = z.enum(FRAME_KINDS)
export type FrameKind = z.infer<typeof FrameKind>
export const FRAME_WORDS: Record<FrameKind, string> = {
  open: 'open, with stops',
  internal: 'routed inside',
  headset: 'through the headset',
  'full-length': 'full-length housing',
  'step-through': 'step-through',
  suspension: 'rear suspension',
  long: 'cargo or tandem',
  folding: 'folding',
}
