import { PointsAsked, type RecordPoint, StandardId } from '#core/http/records'
import { recordRule } from '#core/records/chapters'
import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { requireSession } from '../../../../auth/actor'
import { param, query } from '../../../../auth/refuse'
import { inShop } from '../../../../db/connect'
import { pointsOf } from '../../../../db/recordViews'
import { db } from '../../../../db/shared'

const FigureKey = z
  .string()
  .refine(f => recordRule(f) !== undefined, 'There is no such figure: choose one from the list')

/** One figure's points, each with its job. */
export default defineEventHandler(async (event): Promise<RecordPoint[]> => {
  const { shop } = await requireSession(event)
  const standard = param(event, 'standard', StandardId)
  const figure = param(event, 'figure', z.string().transform(decode).pipe(FigureKey))
  return inShop(db(), shop, tx => pointsOf(tx, shop, standard, figure, query(event, PointsAsked)))
})

function decode(text: string): string {
  try {
    return decodeURIComponent(text)
  } catch {
    return text
  }
}
