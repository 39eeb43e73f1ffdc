import { isBrake, RUN_WORDS, type Housing, type RunName } from './housing'
import { headOf, type Head } from './heads'
import { smallParts } from './smallParts'
import { innerNeededMm, innerToTake, type FarEnd } from './wire'
import type { LaidOut } from './wanted'

/** What is carried to a bench before work starts: of one bike or of a day's. */
export type PickList = {
  /**
   * Inners by what they are for, the length to take and the head; null where none sold is long enough, or nobody looked
   * which head.
   */
  inners: { wire: 'shift' | 'brake'; takeMm: number | null; needMm: number; head: Head | null; runs: string[] }[]
  /** Housing still to be cut, by kind. */
  housing: { kind: Housing; mm: number; pieces: number }[]
  ferrules: number
  caps: number
  noodles: number
  /** Rows that stock does not cover, in words. */
  lacks: string[]
}

/** What hangs on the wall or lies in the drawer, as far as it is counted here: housing by the millimetre. */
type Stock = readonly { kind: Housing; lengthMm: number }[]

/**
 * The parts that the runs laid out still want: of each run whose wire is not in yet its inner and small parts, of each
 * whose housing is not cut its housing. Housing is set against the wall, longest piece first; inners and small parts
 * are not counted as stock, and are listed only.
 * @param at what each brake's wire is clamped to, where it is known
 */
export function pickList<Bike extends LaidOut>(
  bikes: readonly Bike[],
  stock: Stock,
  at: (bike: Bike, run: RunName) => FarEnd = () => null,
): PickList {
  const list: PickList = { inners: [], housing: [], ferrules: 0, caps: 0, noodles: 0, lacks: [] }
  for (const bike of bikes)
    for (const run of bike.runs) {
      const { tag, cabled } = bike
      const done = cabled[run.run] ?? []
      const far = at(bike, run.run)
      const name = `${tag} ${RUN_WORDS[run.run].toLowerCase()}`
      if (!done.includes('fed')) addInner(list, run, far, name)
      if (!done.includes('ferrules')) list.ferrules += smallParts(run, far).ferrules
      if (!done.includes('capped')) list.caps += smallParts(run, far).caps
      if (!done.includes('clamped')) list.noodles += smallParts(run, far).noodles
      if (!done.includes('cut'))
        for (const p of run.pieces) if (p.kind === 'housing') addHousing(list, p.of, Math.round(p.lengthMm))
    }
  list.inners.sort((a, b) => a.wire.localeCompare(b.wire) || a.needMm - b.needMm)
  list.lacks = [...housingLacks(bikes, stock), ...innersLack(list)]
  return list
}

function addInner(list: PickList, run: LaidOut['runs'][number], far: FarEnd, name: string): void {
  const wire = isBrake(run.run) ? 'brake' : 'shift'
  const [takeMm, head, needMm] = [innerToTake(run, far), headOf(run), innerNeededMm(run, far)]
  const same = list.inners.find(i => i.wire === wire && i.takeMm === takeMm && i.head === head && takeMm !== null)
  if (same) {
    same.runs.push(name)
    same.needMm = Math.max(same.needMm, needMm)
  } else list.inners.push({ wire, takeMm, needMm, head, runs: [name] })
}

function addHousing(list: PickList, kind: Housing, mm: number): void {
  const same = list.housing.find(h => h.kind === kind)
  if (same) {
    same.mm += mm
    same.pieces++
  } else list.housing.push({ kind, mm, pieces: 1 })
}

/** Housing that the wall is short of, whatever way it is cut: more than hangs there, or a piece longer than any. */
function housingLacks(bikes: readonly LaidOut[], stock: Stock): string[] {
  const need = new Map<Housing, number[]>()
  for (const { runs, cabled } of bikes)
    for (const r of runs)
      if (!cabled[r.run]?.includes('cut'))
        for (const p of r.pieces)
          if (p.kind === 'housing') need.set(p.of, [...(need.get(p.of) ?? []), Math.round(p.lengthMm)])
  return [...need].flatMap(([kind, lengths]) => {
    const there = stock.filter(s => s.kind === kind).map(s => s.lengthMm)
    const short = lengths.reduce((a, b) => a + b, 0) - there.reduce((a, b) => a + b, 0)
    if (short > 0) return [`${kind}: ${short} mm more than hangs on the wall`]
    const longest = Math.max(...lengths)
    return longest > Math.max(0, ...there) ? [`${kind}: no piece of ${longest} mm on the wall`] : []
  })
}

const innersLack = (list: PickList): string[] =>
  list.inners
    .filter(i => i.takeMm === null)
    .map(i => `${i.runs.join(', ')}: no inner sold reaches ${i.needMm} mm, order one made to length`)
