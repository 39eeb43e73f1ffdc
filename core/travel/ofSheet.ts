import type { Sheet } from '../ledger/sheet'
import { fromSixteenths } from '../quantity/turns'
import type { Setup } from './setup'

/** Gaps travel as finely as they are measured, mm. */
const tenth = (mm: number): number => Math.round(mm * 10) / 10

/** What of a sheet travels. */
export const setupOfSheet = (sheet: Sheet, bike: string): Setup => ({
  bike: bike.trim().slice(0, 80) || 'a bike',
  left: sheet.closedAt.slice(0, 10),
  rear: sheet.parts && {
    ...sheet.parts,
    barrel: {
      ...sheet.parts.barrel,
      turnsOut: Math.min(sheet.parts.barrel.rangeTurns, Math.max(0, fromSixteenths(sheet.barrelSixteenths))),
      assumed: sheet.barrelAssumed,
    },
  },
  turned: sheet.netSixteenths,
  gapMm: sheet.gapMm === null ? null : tenth(sheet.gapMm),
  housing: sheet.lengths.map(l => ({ ...l, lengthMm: Math.round(l.lengthMm) })),
  hub: sheet.hub,
  brakes: sheet.brakes,
  recallOn: sheet.recallOn,
})
