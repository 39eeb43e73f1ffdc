import { CHAIN_LINE_MM } from '../chainLines'
import type { Provenance } from '../../quantity/provenance'
import { GAPS, PLACINGS } from '../../procedure/schools'
import { acrossTolerance } from '../../rear/hanger'
import { BARREL_START_TURNS, LAST_LOOP_MM, TAIL_MM } from '../../rear/clamp'
import { SETTLE } from '../../rear/settle'
import { L_TARGET_MM } from '../../rear/stops'
import { FAULT_WINDOW_TURNS, NEEDED_WINDOW_TURNS, NO_WINDOW_TURNS, SAFE } from '../../response/parameters'
import { PINCH_SIDE_FACTOR } from '../pinchSide'
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

/** Targets and tolerances as the stages use them; the same figures, not copies. */
export const TARGET_ENTRIES: readonly Entry[] = [
  ...GAPS.filter(g => g.id !== 'maker').map(g =>
    target(`gap-${g.id}`, `B gap, ${g.name.toLowerCase()}`, 'mm', g.targetMm.from, g.targetMm.to, 'practice'),
  ),
  ...PLACINGS.map(p =>
    target(`h-${p.id}`, `H stop, ${p.name.toLowerCase()}, + inboard`, 'mm', p.targetMm.from, p.targetMm.to, 'practice'),
  ),
  target('l-stop', 'L stop, + inboard', 'mm', L_TARGET_MM.from, L_TARGET_MM.to, 'practice'),
  target('l-safe', 'L stop is safe between, + inboard', 'pitch', SAFE.L.from, SAFE.L.to, 'model'),
  target('h-safe', 'H stop is safe between, + inboard', 'pitch', SAFE.H.from, SAFE.H.to, 'model'),
  ...[8, 10, 12].map(n =>
    target(
      `hanger-${n}`,
      `Hanger across a 622 mm rim, ${n === 8 ? '6 to 8' : n === 10 ? '9 and 10' : '11 and 12'} speeds`,
      'mm',
      0,
      acrossTolerance(n),
      'memory',
    ),
  ),
  target('window-none', 'Clean window below which it will not index', 'turns', 0, NO_WINDOW_TURNS, 'model'),
  target('window-fault', 'Clean window that puts a cause at fault', 'turns', 0, FAULT_WINDOW_TURNS, 'model'),
  target('window-care', 'Clean window that needs care', 'turns', NO_WINDOW_TURNS, NEEDED_WINDOW_TURNS, 'model'),
  target(
    'pinch-side',
    'Other side of the pinch bolt changes the ratio by a factor of',
    'factor',
    PINCH_SIDE_FACTOR.from,
    PINCH_SIDE_FACTOR.to,
    'memory',
  ),
  target(
    'barrel-start',
    'Barrel out before the inner is clamped',
    'turns',
    BARREL_START_TURNS.from,
    BARREL_START_TURNS.to,
    'practice',
  ),
  target('settle', 'Barrel out once a new run has bedded in', 'turns', SETTLE.fromTurns, SETTLE.toTurns, 'practice'),
  target('last-loop', 'Last rear loop of housing', 'mm', LAST_LOOP_MM.usual.from, LAST_LOOP_MM.usual.to, 'memory'),
  target(
    'last-loop-straight',
    'Last rear loop, straight entry',
    'mm',
    LAST_LOOP_MM.straight.from,
    LAST_LOOP_MM.straight.to,
    'memory',
  ),
  target('tail', 'Inner past the pinch bolt, capped', 'mm', TAIL_MM.from, TAIL_MM.to, 'practice'),
  ...CHAIN_LINE_MM.map(c => target(`chain-line-${c.id}`, `Chain line, ${c.what}`, 'mm', c.from, c.to, 'memory')),
]
