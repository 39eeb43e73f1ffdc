import { placesOf } from '../cable/places'
import type { RunName } from '../cable/housing'
import type { Sheet } from '../ledger/sheet'
import type { Setup } from './setup'

const GAP = /^(\d+(?:\.\d+)?) mm$/

/** What of a sheet travels. */
export function setupOfSheet(sheet: Sheet, bike: string): Setup {
  const gap = GAP.exec(sheet.left.find(f => f.what === 'B gap')?.figure ?? '')?.[1]
  const seen = new Set<string>()
  return {
    bike: bike.trim().slice(0, 80) || 'a bike',
    left: sheet.closedAt.slice(0, 10),
    rear: sheet.parts && {
      ...sheet.parts,
      barrel: {
        ...sheet.parts.barrel,
        turnsOut: Math.min(sheet.parts.barrel.rangeTurns, Math.max(0, sheet.barrelSixteenths / 16)),
        assumed: sheet.barrelAssumed,
      },
    },
    turned: sheet.netSixteenths,
    gapMm: gap === undefined ? null : Number(gap),
    housing: sheet.runs.flatMap(run =>
      placesOf(run).flatMap(({ place, lengthMm }) => {
        const key = `${run.run} ${place}`
        if (seen.has(key)) return []
        seen.add(key)
        return [{ run: run.run as RunName, place, lengthMm: Math.round(lengthMm) }]
      }),
    ),
    hub: sheet.hub,
    brakes: sheet.brakes,
    recallOn: sheet.recallOn,
  }
}
