import { stopsSeen } from '../rear/gates'
import { CAUSE_WORDS, type Cause } from '../response/causes'
import { sayChance } from '../quantity/chance'
import { sayTurns } from '../quantity/turns'
import { capital } from '../quantity/words'
import type { Analysis } from './analysis'
import type { Move } from './contract'
import type { Decision } from './decide'
import { isRightAsItStands } from './moveWords'
import type { Posterior } from './posterior'

/** What a barrel turn does: mm of cable, and mm of pulley with its direction. */
function effectOfBarrel(posterior: Posterior, turns: number, ratio: number): string {
  const cableMm = Math.abs(turns) * posterior.setup.barrelPitchMm
  return `${cableMm.toFixed(2)} mm of cable, ${(cableMm * ratio).toFixed(2)} mm ${turns > 0 === posterior.geometry.threadMm > 0 ? 'towards the spokes' : 'towards the frame'}`
}

/** What a barrel turn does, in a line of its own; null for any other move. */
export function effectOf(posterior: Posterior, analysis: Analysis, move: Move): string | null {
  return move.do === 'turn' && move.screw === 'barrel'
    ? effectOfBarrel(posterior, move.turns, meanRatio(analysis))
    : null
}

/** Why this move, in one line. */
export function explain(posterior: Posterior, analysis: Analysis, decision: Decision): string {
  const { move, best } = decision
  const { setup, geometry } = posterior
  const g = geometry
  switch (move.do) {
    case 'sight':
      if (stopsSeen(posterior.trace)[move.at])
        return `${move.at} stands well ${sayChance(analysis.stops[move.at].good)}: looked at once more, cable slack, from behind, since one look can be off.`
      return move.at === 'L'
        ? `See L by hand before the ${setup.teeth[g.n - 1]}: cable slack, pulley pushed inboard, looked at from behind. A chain past it goes into the spokes.`
        : `See H by hand: cable slack, pulley against its outer stop, looked at from behind.`
    case 'turn': {
      if (move.screw !== 'barrel') {
        const stop = analysis.stops[move.screw]
        const safeAnyway = stop.bestGood - stop.good < WELL_ANYWAY
        if (safeAnyway)
          return `${move.screw} stands ${said(stop.offsetMm.mean)}: safe, and this shop's school wants it elsewhere.`
        return `${move.screw} stands ${said(stop.offsetMm.mean)} of the ${move.screw === 'L' ? 'largest' : 'smallest'} sprocket: well set ${sayChance(stop.good)} as it is, ${sayChance(stop.bestGood)} after the turn.`
      }
      const offset = analysis.offsetMm
      const slack = offset.mean < 0 ? 'slack' : 'tight'
      return `The cable is ${Math.abs(offset.mean).toFixed(1)} ± ${offset.sd.toFixed(1)} mm too ${slack}; right goes from ${sayChance(analysis.right)} to ${sayChance(best.right)}.`
    }
    case 'edge':
      return `Cranks turning, fingers clear, wind until it first rubs on the ${(move.way === 'out') === g.threadMm > 0 ? 'larger' : 'smaller'} neighbour: it tells more than another shift.${doubt(analysis, true)}`
    case 'pass':
      return `Each arrival listened to, as far as it is clean: it tells most for its time.${doubt(analysis, true)}`
    case 'shift':
      return `This arrival tells most now.${doubt(analysis, true)}`
    case 'offset':
      return `A measured offset here tells most now.${doubt(analysis, true)}`
    case 'hanger':
      return `The misfit may slope: gauge before a part is bought.${doubt(analysis, true)}`
    case 'reclamp':
      return `The window is past the barrel's travel by what is known: draw the inner snug at the pinch bolt and start again from ${sayTurns(move.barrelTurnsOut)} out.`
    case 'replace':
      return `${capital(REPLACE_WHY[move.cause])} (${sayChance(move.cause === 'wear' ? analysis.wear.any : analysis.causes[move.cause as 'friction'])}), and no setting cures it (best ${sayChance(best.right)}).`
    case 'done':
      return isRightAsItStands(analysis)
        ? `Every gear is expected clean from both sides: ${sayChance(analysis.right)} sure.`
        : `No further move gains enough: ${sayChance(analysis.right)} right as it stands.${doubt(analysis)}`
  }
}

/** A stop screw that gains less than this is turned for the school's sake. `model` */
const WELL_ANYWAY = 0.03

const REPLACE_WHY: Record<Cause, string> = {
  friction: 'this is friction in the run',
  hanger: 'the hanger is bent',
  mismatch: 'the parts do not match',
  wear: 'the sprockets are worn',
  tension: 'the cable cannot be set',
  stops: 'a stop cannot be set',
}

const said = (mm: number): string =>
  Math.abs(mm) < 0.05
    ? 'in line with the plane'
    : `${Math.abs(mm).toFixed(1)} mm ${mm > 0 ? 'inboard' : 'outboard'} of the plane`

/** Names the two causes that remain, when two do, and whether the move splits them. */
function doubt(analysis: Analysis, check = false): string {
  const left = (['tension', 'friction', 'hanger', 'mismatch', 'wear'] as const)
    .filter(c => analysis.causes[c] > 0.2 && analysis.causes[c] < 0.95)
    .sort((a, b) => analysis.causes[b] - analysis.causes[a])
  if (left.length < 2) return ''
  return ` Still open: ${CAUSE_WORDS[left[0]].toLowerCase()} ${sayChance(analysis.causes[left[0]])} or ${CAUSE_WORDS[left[1]].toLowerCase()} ${sayChance(analysis.causes[left[1]])}${check ? '; this splits them best' : ''}.`
}

const meanRatio = (analysis: Analysis): number => analysis.readings.reduce((s, r) => s + r.weight * r.belief.ratio, 0)
