import type { RearEvent } from '../rear/events'
import { RUB_DB } from './rubOdds'

/*
 * Wind and listen: the hiss against eighths of barrel, both rubs and the quiet middle between them.
 */

/**
 * The hiss heard with the barrel so many eighths out from where winding began, and which way it was wound there: a
 * run's backlash lies between the two ways.
 */
export type HeardAt = { eighths: number; way: 'out' | 'in'; rubDb: number }
/** Where a rub begins, in eighths, and how far that may be off; null where none was reached. */
export type Edge = { eighths: number; sd: number } | null
export type Wound = { in: Edge; out: Edge; quiet: { from: number; to: number } | null }

/** A rub comes in over so much of a turn of the barrel, and hisses differently from link to link. `model` */
const COMES_IN = 0.45
const SPREAD_DB = 5
/** Edges are looked for so finely, eighths. */
const STEP = 0.1
/** A rub that is less likely than this was not reached. */
const REACHED = 0.9

/** Both edges of the quiet window, each from what was heard winding towards it. */
export function edgesOf(heard: readonly HeardAt[]): Wound {
  // where winding began is of both ways
  const towards = (way: 'out' | 'in') => heard.filter(h => h.way === way || h.eighths === 0)
  const [low, high] = [edgesIn(towards('in')).low, edgesIn(towards('out')).high]
  return { in: low, out: high, quiet: low && high ? { from: low.eighths, to: high.eighths } : null }
}

/**
 * Edges from what was heard along one way: the chance of every pair of edges that the sounds leave, an edge past the
 * last listening being none.
 */
function edgesIn(heard: readonly HeardAt[]): { low: Edge; high: Edge } {
  if (heard.length < 3) return { low: null, high: null }
  const at = heard.map(h => h.eighths)
  const [least, most] = [Math.min(...at), Math.max(...at)]
  const places: number[] = []
  for (let e = least - 1.5; e <= most + 1.5; e += STEP) places.push(e)
  const comes = (past: number) => 1 / (1 + Math.exp(-past / COMES_IN))
  const { clean, rub } = RUB_DB
  const pairs: { low: number; high: number; ln: number }[] = []
  for (const low of places)
    for (const high of places) {
      if (high - low < 0.5) continue
      const ln = heard.reduce((s, { eighths, rubDb }) => {
        const share = Math.min(1, comes(low - eighths) + comes(eighths - high))
        const off =
          (Math.max(clean.mean, Math.min(rub.mean + 4, rubDb)) - clean.mean - share * (rub.mean - clean.mean)) /
          SPREAD_DB
        return s - 0.5 * off * off
      }, 0)
      pairs.push({ low, high, ln })
    }
  const top = Math.max(...pairs.map(p => p.ln))
  const weights = pairs.map(p => Math.exp(p.ln - top))
  const whole = weights.reduce((a, b) => a + b, 0)
  const edge = (of: (p: { low: number; high: number }) => number, reached: (e: number) => boolean): Edge => {
    let [share, sum, squares] = [0, 0, 0]
    pairs.forEach((p, i) => {
      const e = of(p)
      if (!reached(e)) return
      share += weights[i]!
      sum += weights[i]! * e
      squares += weights[i]! * e * e
    })
    if (share < REACHED * whole) return null
    const eighths = sum / share
    return { eighths, sd: Math.sqrt(Math.max(0.01, squares / share - eighths * eighths)) }
  }
  const low = edge(
    p => p.low,
    e => e > least - 0.4,
  )
  const high = edge(
    p => p.high,
    e => e < most + 0.4,
  )
  return { low, high }
}

/** An edge is looked for over two turns of the barrel (model, section 6), sixteenths. */
const MOST_SIXTEENTHS = 32
const sixteenths = (eighths: number) => Math.round(2 * eighths) || 0

/**
 * Both rubs as the ledger has them, wound to one after the other, and the barrel turned to where it stands now. A rub
 * that was there where winding began, and one too far from the other, is left out.
 * @param nowEighths where the barrel stands, from where winding began
 */
export function entriesOf({ in: low, out: high }: Wound, click: number, nowEighths: number): RearEvent[] {
  const out: RearEvent[] = []
  let at = 0
  const edge = (way: 'out' | 'in', to: number) => {
    const by = to - at
    if (Math.abs(by) > MOST_SIXTEENTHS || (way === 'out' ? by < 0 : by > 0)) return
    out.push({ kind: 'edge', click, way, sixteenths: by, found: true })
    at = to
  }
  if (high) edge('out', sixteenths(high.eighths))
  if (low) edge('in', sixteenths(low.eighths))
  const rest = sixteenths(nowEighths) - at
  if (rest !== 0) out.push({ kind: 'turn', screw: 'barrel', sixteenths: rest })
  return out
}
