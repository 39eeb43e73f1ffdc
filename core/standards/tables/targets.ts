import { OTHER_PLACE_FACTOR } from '../anchor'
import type { Provenance } from '../../quantity/provenance'
import { FAULT_WINDOW_TURNS, NEEDED_WINDOW_TURNS, NO_WINDOW_TURNS, SAFE, STOP_PLACING } from '../model'
import { CHAIN_LINE_MM } from '../chainLines'
import type { Entry } from '../entry'

const target = (
  id: string,
  title: string,
  key: string,
  from: number,
  to: number,
  provenance: Provenance,
  source?: string,
): Entry => ({
  kind: 'target',
  id,
  title,
  figures: [{ key, value: [from, to], provenance, ...(source ? { source } : {}) }],
})

/** Targets and tolerances; stages and sums read them here, with the shop's own measurement over them (inForce.ts). */
export const TARGET_ENTRIES: readonly Entry[] = [
  target('gap-close', 'B gap, 3 to 6 mm', 'mm', 3, 6, 'practice'),
  target('gap-start-wide', 'B gap, 6 to 10 mm, then refine', 'mm', 6, 10, 'practice'),
  target('gap-smallest-clear', 'B gap, the smallest that clears', 'mm', 2, 5, 'practice'),
  target('gap-with-sag', 'B gap, with the rider’s sag', 'mm', 13, 16, 'practice'),
  target('h-centred', 'H stop, centred, + inboard', 'mm', STOP_PLACING.H.from, STOP_PLACING.H.to, 'practice'),
  target('h-outboard', 'H stop, 1 to 2 mm outboard, + inboard', 'mm', -2, -1, 'practice'),
  target(
    'l-stop',
    'L stop, + inboard',
    'mm',
    STOP_PLACING.L.from,
    STOP_PLACING.L.to,
    'practice',
    'centred under the largest, never further inboard',
  ),
  target('l-safe', 'L stop is safe between, + inboard', 'pitch', SAFE.L.from, SAFE.L.to, 'model'),
  target('h-safe', 'H stop is safe between, + inboard', 'pitch', SAFE.H.from, SAFE.H.to, 'model'),
  target('hanger-8', 'Hanger across a 622 mm rim, 6 to 8 speeds', 'mm', 0, 4, 'memory'),
  target('hanger-10', 'Hanger across a 622 mm rim, 9 and 10 speeds', 'mm', 0, 2, 'memory'),
  target('hanger-12', 'Hanger across a 622 mm rim, 11 and 12 speeds', 'mm', 0, 1, 'memory'),
  target('window-none', 'Clean window below which it will not index', 'turns', 0, NO_WINDOW_TURNS, 'model'),
  target('window-fault', 'Clean window that puts a cause at fault', 'turns', 0, FAULT_WINDOW_TURNS, 'model'),
  target('window-care', 'Clean window that needs care', 'turns', NO_WINDOW_TURNS, NEEDED_WINDOW_TURNS, 'model'),
  target(
    'pinch-side',
    'Other side of the pinch bolt changes the ratio by a factor of',
    'factor',
    OTHER_PLACE_FACTOR.from,
    OTHER_PLACE_FACTOR.to,
    'memory',
  ),
  target('barrel-start', 'Barrel out before the inner is clamped', 'turns', 1.5, 2, 'practice'),
  target('settle', 'Barrel out once a new run has bedded in', 'turns', 0.25, 0.5, 'practice'),
  target('last-loop', 'Last rear loop of housing', 'mm', 250, 320, 'memory'),
  target('last-loop-straight', 'Last rear loop, straight entry', 'mm', 180, 230, 'memory'),
  target('tail', 'Inner past the pinch bolt, capped', 'mm', 30, 50, 'practice'),
  target('let-out', 'Cable let out after linear-pull pads touch', 'mm', 5, 5, 'practice'),
  ...CHAIN_LINE_MM.map(c => target(`chain-line-${c.id}`, `Chain line, ${c.what}`, 'mm', c.from, c.to, 'memory')),
]
