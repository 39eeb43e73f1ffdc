import { defineEventHandler } from 'h3'
import { ShownAsked, type ShownPractice } from '#core/http/practice'
import { requirePerson } from '../../auth/actor'
import { query, refuse } from '../../auth/refuse'
import { inShop } from '../../db/connect'
import { shownPractice } from '../../db/practice'
import { db } from '../../db/shared'

/** Runs of those who show theirs: for a mechanic, never for a trainee. */
export default defineEventHandler(async (event): Promise<ShownPractice> => {
  const { shop, person } = await requirePerson(event)
  if (person.role === 'trainee') throw refuse(403, 'What others practised is shown to a mechanic: ask one')
  const { test } = query(event, ShownAsked)
  return inShop(db(), shop, tx => shownPractice(tx, shop, test))
})
